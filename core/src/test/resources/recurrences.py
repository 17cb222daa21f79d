"""The next date of recurrences by python3-dateutil: expanded in local time, then placed in the zone.

Reads lines of rule, local start, zone, instant (seconds since 1970) and how many days to look ahead, with tabs between; writes the instant of the
next date, or -; or ? where it does not find an end.
"""

import signal
import sys
from datetime import datetime, timedelta, timezone
from zoneinfo import ZoneInfo

from dateutil.rrule import rrulestr

# Around a clock change dates may change places; where the date line moved, a day was left out.
NEAR = timedelta(days=3)


def next_date(rule, start, zone, after, ahead):
    dates = rrulestr(rule, dtstart=datetime.fromisoformat(start))
    zone = ZoneInfo(zone)
    asked = datetime.fromtimestamp(after, zone).replace(tzinfo=None)
    end = asked + timedelta(days=ahead)
    dates = dates.replace(until=end if dates._until is None else min(end, dates._until))
    best = None
    for date in dates.xafter(asked - NEAR, inc=True):
        if best is not None and date > best[1] + NEAR:
            break
        # fold=0: the first of two, and in a gap the offset before it.
        placed = int(date.replace(tzinfo=zone, fold=0).astimezone(timezone.utc).timestamp())
        if placed > after and (best is None or placed < best[0]):
            best = (placed, date)
    return "-" if best is None else str(best[0])


def give_up(*_):
    raise TimeoutError


# By processor time, so that a busy machine answers as many.
signal.signal(signal.SIGVTALRM, give_up)
for line in sys.stdin:
    rule, start, zone, after, ahead = line.rstrip("\n").split("\t")
    try:
        signal.setitimer(signal.ITIMER_VIRTUAL, 0.02)
        try:
            found = next_date(rule, start, zone, int(after), int(ahead))
        except IndexError:
            found = "?"
        except ValueError as refused:
            if "empty" not in str(refused):
                raise
            found = "-"
        finally:
            signal.setitimer(signal.ITIMER_VIRTUAL, 0)
    # Outside all of it, since the time may also be up while an answer is being kept.
    except TimeoutError:
        signal.setitimer(signal.ITIMER_VIRTUAL, 0)
        found = "?"
    print(found)
