"""The field helper's text as a phone would write it: each line with its check, and their number."""

from hashlib import sha256


def field_text(*lines: str) -> str:
    """Return lines (`of ...` and shots) as the text of the second version."""
    of, found, count = "", ["Lyrandis field shots 2"], 0
    for line in lines:
        if line.startswith("of "):
            of = line
            found.append(line)
            continue
        at, name, said = line.split(" ", 2)
        check = sha256(f"{at}|{name}|{of}|{said}".encode()).hexdigest()[:4]
        found.append(f"{line} ~{check}")
        count += 1
    return "\n".join([*found, f"end {count}", ""])
