"""How every browser run is started: Debian's Chromium, no window, no other host."""

from typing import Any

from playwright.sync_api import (
    Browser,
    BrowserContext,
    FloatRect,
    Locator,
    Playwright,
    Request,
    expect,
)

CHROMIUM = "/usr/bin/chromium"
LAUNCH_ARGS = [
    # No name but this machine's means anything: whoever asks elsewhere gets nothing.
    "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1",
    "--no-sandbox",
    "--disable-dev-shm-usage",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-quic",
    "--no-first-run",
    "--no-default-browser-check",
    "--disable-default-apps",
    "--metrics-recording-only",
    # Painting by hand is a fifth cheaper than an imitated graphics card; only the 3-D view asks one.
    "--disable-gpu-compositing",
    "--use-angle=swiftshader",
    "--enable-unsafe-swiftshader",
    "--font-render-hinting=none",
    "--force-color-profile=srgb",
    "--hide-scrollbars",
]
# Tests take every core: compiling beside the page gains nothing then.
ONE_THREAD = "--js-flags=--single-threaded"
CONTEXT: dict[str, Any] = {
    "viewport": {"width": 1280, "height": 800},
    "device_scale_factor": 1,
    "locale": "en-GB",
    "timezone_id": "UTC",
    "reduced_motion": "reduce",
}


def launch(playwright: Playwright, *, one_thread: bool = True) -> Browser:
    """Return a headless Chromium; not on one thread it is as a person's browser is."""
    args = [*LAUNCH_ARGS, *([ONE_THREAD] if one_thread else [])]
    return playwright.chromium.launch(executable_path=CHROMIUM, args=args)


def other_hosts_asked(context: BrowserContext, own: str) -> list[str]:
    """Return what fills with every request to another address than `own`; none gets an answer."""
    asked: list[str] = []

    def look(request: Request) -> None:
        if not request.url.startswith((own, "data:", "blob:")):
            asked.append(request.url)

    context.on("request", look)
    return asked


def still_box(part: Locator) -> FloatRect:
    """Where a part is drawn once it stands still: seen, and the same in two frames running."""
    last: FloatRect | None = None
    while True:
        expect(part).to_be_visible()
        now = part.bounding_box()
        # None: another view took its place between the two questions.
        if now is not None and now == last:
            return now
        last = now
        part.page.evaluate("() => new Promise(requestAnimationFrame)")
