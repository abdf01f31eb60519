#!/bin/sh
# Starts a DHCP server ($1: dnsmasq, kea or isc) with the configuration $2 in a namespace of its own, and asks it as firmware
# does. Start it by `unshare -n -m`.
set -e
mount -t tmpfs none /run
mkdir -p /run/netns /run/kea /run/lock/kea
ip netns add asks
ip link add name served type veth peer name relay netns asks
ip addr add 10.61.10.1/24 dev served
ip link set lo up
ip link set served up
ip -n asks addr add 10.61.10.9/24 dev relay
ip -n asks link set lo up
ip -n asks link set relay up
case $1 in
  dnsmasq) dnsmasq -k --port=0 -C "$2" --dhcp-leasefile=/run/leases --user=root > /run/said 2>&1 & ;;
  kea) KEA_PIDFILE_DIR=/run KEA_LOCKFILE_DIR=none kea-dhcp4 -c "$2" > /run/said 2>&1 & ;;
  isc)
    : > /run/leases
    dhcpd -4 -f -user root -group root -cf "$2" -lf /run/leases -pf /run/pid served > /run/said 2>&1 &
    ;;
esac
server=$!
sleep 1
ip netns exec asks node "$3" 10.61.10.1 10.61.10.9 || true
kill "$server" || true
cat /run/said >&2
