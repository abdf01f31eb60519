#!/bin/sh
# Tries a written dnsmasq.conf in namespaces of its own: $1 holds etc/dnsmasq.d/derrick.conf. A client with a reserved MAC
# asks for an IPv4 and an IPv6 address; the leases that it got are printed. Start it by `unshare -n -m`.
set -e
mount -t tmpfs none /run
mkdir -p /run/netns
ip netns add client
ip link add name served type veth peer name asks netns client
ip addr add fd61:7a1e::1/64 dev served nodad
ip addr add 10.61.10.1/24 dev served
ip link set lo up
ip link set served up
ip -n client link set asks address 02:61:0a:00:00:09
ip -n client link set asks up
# A client asks from its link-local address, which is tried for some seconds before it may be used.
until ip -n client addr show asks | grep inet6 | grep -qv tentative; do sleep 0.2; done
dnsmasq -k --port=0 -C "$1/etc/dnsmasq.d/derrick.conf" --dhcp-leasefile="$1/leases" --user=root > "$1/served" 2>&1 &
server=$!
for family in 4 6; do
  # Nothing of this machine is set: the program that would do so is /bin/true.
  ip netns exec client timeout 20 dhclient "-$family" -1 -sf /bin/true -lf "$1/lease$family" -pf "$1/pid$family" asks > /dev/null 2>&1 || true
done
cat "$1"/lease? "$1/served"
for pid in "$1"/pid?; do kill "$(cat "$pid")" || true; done
kill "$server"
