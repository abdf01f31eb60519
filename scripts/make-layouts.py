"""Writes src/core/identity/keyboard/tables.ts from Debian's own keyboard data.

It needs the packages xkb-data and libxkbcommon0, and is run by hand when those are renewed:
python3 scripts/make-layouts.py. A level is read by really pressing left Shift and right Alt in a
keyboard state and asking for the symbol of the key. The licence of xkb-data is noted in the file.
"""

import ctypes
import ctypes.util
import json
import subprocess
import sys
from pathlib import Path

KEYS = ["TLDE"]
KEYS += [f"AE{n:02}" for n in range(1, 14)] + [f"AD{n:02}" for n in range(1, 13)]
KEYS += [f"AC{n:02}" for n in range(1, 12)] + ["BKSL", "LSGT"]
KEYS += [f"AB{n:02}" for n in range(1, 12)] + ["SPCE"]

# Name in the application: what it is called, layout and variant of xkb.
LAYOUTS = {
    "us": ("United States", "us", ""),
    "us-intl": ("United States, international with dead keys", "us", "intl"),
    "us-dvorak": ("United States, Dvorak", "us", "dvorak"),
    "gb": ("United Kingdom", "gb", ""),
    "ie": ("Ireland", "ie", ""),
    "ca": ("Canada, French", "ca", ""),
    "de": ("Germany", "de", ""),
    "at": ("Austria", "at", ""),
    "ch": ("Switzerland, German", "ch", ""),
    "ch-fr": ("Switzerland, French", "ch", "fr"),
    "fr": ("France", "fr", ""),
    "be": ("Belgium", "be", ""),
    "nl": ("Netherlands", "nl", ""),
    "es": ("Spain", "es", ""),
    "latam": ("Latin America", "latam", ""),
    "pt": ("Portugal", "pt", ""),
    "br": ("Brazil", "br", ""),
    "it": ("Italy", "it", ""),
    "dk": ("Denmark", "dk", ""),
    "no": ("Norway", "no", ""),
    "se": ("Sweden", "se", ""),
    "fi": ("Finland", "fi", ""),
    "is": ("Iceland", "is", ""),
    "ee": ("Estonia", "ee", ""),
    "pl": ("Poland", "pl", ""),
    "cz": ("Czechia", "cz", ""),
    "sk": ("Slovakia", "sk", ""),
    "hu": ("Hungary", "hu", ""),
    "si": ("Slovenia", "si", ""),
    "ro": ("Romania", "ro", ""),
    "tr": ("Turkey", "tr", ""),
    "jp": ("Japan", "jp", ""),
}
MODELS = {"jp": "jp106", "br": "abnt2"}
LEVEL3 = 0xFE03
NO_KEY = 0xFFFFFFFF
DOWN = 1

xkb = ctypes.CDLL(ctypes.util.find_library("xkbcommon") or "libxkbcommon.so.0")
for name in ("xkb_context_new", "xkb_keymap_new_from_names", "xkb_state_new"):
    getattr(xkb, name).restype = ctypes.c_void_p
for name in ("xkb_keymap_key_by_name", "xkb_state_key_get_one_sym", "xkb_keysym_to_utf32"):
    getattr(xkb, name).restype = ctypes.c_uint32


class RuleNames(ctypes.Structure):
    _fields_ = [(f, ctypes.c_char_p) for f in ("rules", "model", "layout", "variant", "options")]


def key_of(keymap, name):
    return xkb.xkb_keymap_key_by_name(ctypes.c_void_p(keymap), name.encode())


def symbol(keymap, code, level):
    """The symbol of a key with the modifiers of a level held down."""
    state = ctypes.c_void_p(xkb.xkb_state_new(ctypes.c_void_p(keymap)))
    for bit, modifier in ((1, "LFSH"), (2, "RALT")):
        if level & bit:
            xkb.xkb_state_update_key(state, key_of(keymap, modifier), DOWN)
    found = xkb.xkb_state_key_get_one_sym(state, code)
    xkb.xkb_state_unref(state)
    return found


def level_of(found):
    """A character, a dead key, or null."""
    name = ctypes.create_string_buffer(64)
    xkb.xkb_keysym_get_name(found, name, 64)
    text = name.value.decode()
    if text.startswith("dead_"):
        return {"dead": text}
    point = xkb.xkb_keysym_to_utf32(found)
    return chr(point) if point >= 32 and point != 127 else None


def table(context, layout, variant):
    names = RuleNames(b"evdev", MODELS.get(layout, "pc105").encode(), layout.encode(), variant.encode(), b"")
    keymap = xkb.xkb_keymap_new_from_names(ctypes.c_void_p(context), ctypes.byref(names), 0)
    if not keymap:
        sys.exit(f"no keymap {layout} {variant}")
    altgr = symbol(keymap, key_of(keymap, "RALT"), 0) == LEVEL3
    keys = {}
    for name in KEYS:
        code = key_of(keymap, name)
        if code != NO_KEY:
            levels = [level_of(symbol(keymap, code, n)) for n in range(4 if altgr else 2)]
            keys[name] = {"levels": levels}
    return {"layout": layout, "variant": variant, "right_alt_is_altgr": altgr, "keys": keys}


def main():
    context = xkb.xkb_context_new(0)
    version = subprocess.run(
        ["dpkg-query", "-W", "-f", "${Version}", "xkb-data"], check=True, capture_output=True, text=True
    ).stdout
    layouts = {
        name: {"title": title, **table(context, layout, variant)}
        for name, (title, layout, variant) in LAYOUTS.items()
    }
    out = Path(__file__).resolve().parent.parent / "src/core/identity/keyboard/tables.ts"
    # One layout a line, so that a renewal shows which ones changed.
    lines = [
        f"  {json.dumps(name)}: {json.dumps(layout, ensure_ascii=False, separators=(',', ':'))},"
        for name, layout in layouts.items()
    ]
    head = [
        f"// Written by scripts/make-layouts.py from xkb-data {version}, read through libxkbcommon.",
        "// Licence of xkb-data: permissive notices in the style of MIT and X11, of several holders; they stand in",
        "// /usr/share/doc/xkb-data/copyright of the Debian package.",
        "",
        "/** Keyboard layouts by their names here. */",
        "export const tables: Readonly<Record<string, unknown>> = {",
    ]
    out.write_text("\n".join([*head, *lines, "};", ""]), encoding="utf-8")


main()
