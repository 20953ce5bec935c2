"""The sample jobs' figures as the app answers them, taken before and after a change of its inside.

``python bench/figures.py take URL FILE`` writes every answer of a running demo, and
``python bench/figures.py compare BEFORE AFTER`` names every value that is not the same to its
last digit.  Exit code 1 when any is not.
"""

import json
import re
import sys
import time
import urllib.error
import urllib.parse
import urllib.request
from collections import Counter
from collections.abc import Iterator
from pathlib import Path
from typing import Any

OPTION_READS = (
    "year", "shade-band", "target", "sheet", "string-plans", "tracker-losses", "shared-trackers",
    "angles", "split?tilt_deg=30&ratio=1.3", "shade", "shade-hours", "trimmed?number=1", "at-meter?number=1", "sun-day?day=171",
    "losses-at-meter", "house", "worst-modules", "own-point", "bench",
    "plan-verdict?typed=14 on 1, 14 on 2",
)  # fmt: skip
STUDIES = (
    "inverter-plans", "remedies", "comparison", "loading-sweep", "pairing",
    "module-choice", "what-to-buy", "which",
)  # fmt: skip
PLANE_READS = ("alternatives", "squeeze", "one-more", "exactly?count=6", "sun-paths?day=171")
GROUND_READS = ("rows-light", "brackets", "seasons")
ROUND_S = 0.5
# What stands beside the findings of a study.
AROUND = {"running", "problem", "done_frac"}
# What time it was and which row it was given are not figures.
NOT_FIGURES = re.compile(r"created|saved|changed_at|printed|etag|running|\.id$|job_id|made_on")


def read(url: str) -> Any:
    """The answer as JSON; a refusal as its status and words."""
    try:
        with urllib.request.urlopen(url.replace(" ", "%20")) as answer:
            return json.load(answer)
    except urllib.error.HTTPError as error:
        body = error.read().decode()
        return {"status": error.code, "body": json.loads(body) if body[:1] in "[{" else body}


def ended(url: str) -> Any:
    """The last answer of a study, once it goes on no more."""
    while (answer := read(url)).get("running"):
        time.sleep(ROUND_S)
    return answer


def take(root: str, file: Path) -> None:
    """Write every figure of every job, by job and route; what there is after each option."""
    found: dict[str, Any] = {}
    for listed in read(f"{root}/api/jobs")["jobs"]:
        name = listed["name"]
        opened = read(f"{root}/api/jobs/{listed['id']}")
        found[f"{name} open"] = opened
        at = f"{root}/api/jobs/{listed['id']}/revisions/{opened['found']['revision']}"
        found[f"{name} compared"] = read(f"{at}/compared")
        found[f"{name} weather"] = read(f"{at}/weather")
        for option in opened["found"]["job"]["options"]:
            here = f"{at}/options/{option['id']}"
            for route in OPTION_READS:
                found[f"{name} {option['id']} {route}"] = read(f"{here}/{route}")
            for route in STUDIES:
                found[f"{name} {option['id']} {route}"] = ended(f"{here}/{route}")
            for array in option["arrays"]:
                plane = f"{here}/planes/{array['plane_id']}"
                for route in (*PLANE_READS, *GROUND_READS):
                    key = f"{name} {option['id']} {array['plane_id']} {route}"
                    found[key] = read(f"{plane}/{route}")
            file.write_text(json.dumps(found))
            print(name, option["id"], file=sys.stderr, flush=True)


def leaves(value: Any, path: str = "") -> Iterator[tuple[str, Any]]:
    """Every plain value with where it stands."""
    if isinstance(value, dict):
        for key, inner in value.items():
            yield from leaves(inner, f"{path}.{key}")
    elif isinstance(value, list):
        for index, inner in enumerate(value):
            yield from leaves(inner, f"{path}[{index}]")
    else:
        yield path, value


def bare(answer: Any) -> Any:
    """What stands in an answer's envelope, whatever the envelope calls it."""
    while isinstance(answer, dict):
        inside = [v for k, v in answer.items() if k not in AROUND]
        if len(inside) != 1 or not isinstance(inside[0], dict | list):
            break
        answer = inside[0]
    return answer


def compare(before: dict[str, Any], after: dict[str, Any]) -> int:
    """Name what differs; the number of values that do."""
    differing, same = Counter[str](), 0
    for key in sorted(before.keys() | after.keys()):
        was, now = (dict(leaves(bare(d.get(key)))) for d in (before, after))
        for path in sorted(was.keys() | now.keys()):
            if NOT_FIGURES.search(path):
                continue
            if was.get(path) == now.get(path):
                same += 1
                continue
            differing[key] += 1
            if differing[key] <= 8:
                print(f"{key}{path}: {was.get(path)!r} -> {now.get(path)!r}"[:300])
    for key, count in differing.items():
        print(f"{count} values differ: {key}")
    print(f"{same} values the same to the last digit, {sum(differing.values())} differ")
    return sum(differing.values())


if __name__ == "__main__":
    if sys.argv[1] == "take":
        take(sys.argv[2], Path(sys.argv[3]))
    else:
        was, now = (json.loads(Path(f).read_text()) for f in sys.argv[2:4])
        sys.exit(1 if compare(was, now) else 0)
