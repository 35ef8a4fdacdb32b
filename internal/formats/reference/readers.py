"""Reads a folder of our samples with programs of others: python3-icalendar and dateutil for
iCalendar, Python's own csv for CSV. Prints what differs from the .json beside each, then counts;
status 1 where anything does."""

import csv
import json
import pathlib
import sys
from datetime import date, datetime, timedelta, timezone
from zoneinfo import ZoneInfo

import icalendar
from dateutil.rrule import rrulestr

differs = []
counts = {"calendars": 0, "to-dos": 0, "rules": 0, "rings": 0, "tables": 0, "rows": 0}


def wall(value):
    return value.strftime("%Y-%m-%dT%H:%M" if isinstance(value, datetime) else "%Y-%m-%d")


def dates(part):
    """The first twenty dates of a rule."""
    start = part["dtstart"].dt
    if not isinstance(start, datetime):
        start = datetime(start.year, start.month, start.day)
    # Parts of rules count on the wall: the zone plays no part in their dates.
    start = start.replace(tzinfo=None)
    rule = part["rrule"].to_ical().decode()
    rule = ";".join(p if not p.startswith("UNTIL=") else p.rstrip("Z") for p in rule.split(";"))
    found = []
    for at in rrulestr(rule, dtstart=start):
        found.append(at.strftime("%Y-%m-%d"))
        if len(found) == 20:
            break
    return found


# The zone of who reads, in which values without one are (RFC 5545, section 3.3.5).
HERE = ZoneInfo("Europe/Lisbon")


def instant(value):
    """The instant of a date or a time; of a date its first (RFC 5545, section 3.8.6.3)."""
    if not isinstance(value, datetime):
        value = datetime(value.year, value.month, value.day)
    return (value if value.tzinfo else value.replace(tzinfo=HERE)).astimezone(timezone.utc)


def rings(part):
    """The instants at which a part's alarms come, but for those that no time brings: their trigger is
    one of 1976 (RFC 9074, section 8)."""
    found = []
    for alarm in part.walk("VALARM"):
        trigger = alarm["trigger"]
        if trigger.dt == datetime(1976, 4, 1, 0, 55, 45, tzinfo=timezone.utc):
            continue
        if not isinstance(trigger.dt, timedelta):
            found.append(instant(trigger.dt))
        elif trigger.params.get("RELATED") == "END":
            found.append(instant(part["due"].dt) + trigger.dt)
        else:
            found.append(instant(part["dtstart"].dt) + trigger.dt)
    return [at.strftime("%Y-%m-%dT%H:%M:%SZ") for at in sorted(found)]


for path in sorted(pathlib.Path(sys.argv[1]).glob("*.json")):
    wanted = json.loads(path.read_text())
    calendar = icalendar.Calendar.from_ical(path.with_suffix(".ics").read_bytes())
    parts = {str(p["uid"]): p for p in calendar.walk() if p.name in ("VTODO", "VJOURNAL")}
    counts["calendars"] += 1
    if len(parts) != len(wanted):
        differs.append(f"{path.stem}.ics has {len(parts)} parts, not {len(wanted)}")
    for want in wanted:
        part = parts.get(want["uid"])
        if part is None:
            differs.append(f"{path.stem}.ics: {want['uid']} is missing")
            continue
        counts["to-dos"] += 1
        found = {"title": str(part["summary"]), "alarms": sum(p.name == "VALARM" for p in part.walk())}
        if part.name == "VTODO":
            found["rings"] = rings(part)
            counts["rings"] += len(found["rings"])
            if "due" in part:
                found["due"] = wall(part["due"].dt)
        if "rrule" in part:
            counts["rules"] += 1
            found["dates"] = dates(part)
        for key, value in found.items():
            if value != want.get(key, []):
                differs.append(f"{path.stem}.ics: {want['title']}: {key} is {value}, not {want.get(key)}; {part.get('rrule')}")
    with open(path.with_suffix(".csv"), newline="", encoding="utf-8") as file:
        rows = list(csv.DictReader(file, strict=True))
    counts["tables"] += 1
    if len(rows) != len(wanted):
        differs.append(f"{path.stem}.csv has {len(rows)} rows, not {len(wanted)}")
    at = {want["uid"]: want for want in wanted}
    for row, want in zip(rows, wanted):
        counts["rows"] += 1

        def value(name):
            text = row[name]
            guarded = text[:1] == "'" and text[1:2] in ("'", "=", "+", "-", "@", "\t", "\r") and len(text) > 1
            return text[1:] if guarded else text

        under = wanted[want["under"]]["uid"] if want["under"] >= 0 else ""
        for name, expected in (("title", want["title"]), ("uid", want["uid"]), ("under", under), ("note", "yes" if want.get("note") else "")):
            if value(name) != expected:
                differs.append(f"{path.stem}.csv: {want['title']}: {name} is {value(name)!r}, not {expected!r}")

print("\n".join(differs[:40]))
print(counts, f"{len(differs)} differ")
sys.exit(bool(differs))
