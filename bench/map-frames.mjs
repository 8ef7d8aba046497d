// How many frames a second the map gives while somebody looks around on it, in headless Chromium.
//
//   node --experimental-websocket bench/map-frames.mjs http://127.0.0.1:5170 "/r/1/map?step=4"
//
// Needs a running demo and /usr/bin/chromium. Prints, for a page at rest, for a pointer that goes from mark to mark, and for a
// map that is scrolled: frames a second and the longest frame of three seconds. A machine without a graphics card draws in
// software, so hold the figures against the page at rest of the same run, not against 60.
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const [home, path] = process.argv.slice(2);
if (!home || !path) {
  console.error("usage: map-frames.mjs ADDRESS PATH-OF-A-MAP");
  process.exit(2);
}
const pause = (ms) => new Promise((done) => setTimeout(done, ms));
const profile = mkdtempSync(join(tmpdir(), "zendle-frames-"));
const port = 9400 + Math.floor(Math.random() * 400);
const chromium = spawn(
  "/usr/bin/chromium",
  [
    "--headless=new",
    "--no-sandbox",
    `--remote-debugging-port=${port}`,
    `--user-data-dir=${profile}`,
    "about:blank",
  ],
  { stdio: "ignore" },
);

async function page() {
  for (let tries = 0; tries < 100; tries++) {
    try {
      const targets = await (
        await fetch(`http://127.0.0.1:${port}/json`)
      ).json();
      const found = targets.find((t) => t.type === "page");
      if (found) return found.webSocketDebuggerUrl;
    } catch {
      // It is starting.
    }
    await pause(200);
  }
  throw new Error("Chromium did not start.");
}

const socket = new WebSocket(await page());
await new Promise((done) => (socket.onopen = done));
let last = 0;
const asked = new Map();
socket.onmessage = ({ data }) => {
  const reply = JSON.parse(data);
  asked.get(reply.id)?.(reply.result);
  asked.delete(reply.id);
};
const send = (method, params = {}) =>
  new Promise((done) => {
    asked.set(++last, done);
    socket.send(JSON.stringify({ id: last, method, params }));
  });
const run = async (code) =>
  (
    await send("Runtime.evaluate", {
      expression: `(async () => { ${code} })()`,
      awaitPromise: true,
      returnByValue: true,
    })
  ).result?.value;

/** Frames of three seconds while something is done again and again. */
async function frames(what, act) {
  await run(`window.frames_ = []; let before = performance.now(); window.counting = true;
    const tick = (now) => { frames_.push(now - before); before = now; if (window.counting) requestAnimationFrame(tick); };
    requestAnimationFrame(tick);`);
  const end = Date.now() + 3_000;
  for (let n = 0; Date.now() < end; n++) await act(n);
  const times = await run("window.counting = false; return frames_.slice(1)");
  const all = times.reduce((sum, t) => sum + t, 0);
  console.log(
    `${what.padEnd(30)} ${((times.length * 1000) / all).toFixed(0).padStart(3)} frames/s, longest ${Math.max(...times).toFixed(0)} ms`,
  );
}

try {
  await send("Emulation.setDeviceMetricsOverride", {
    width: 1280,
    height: 800,
    deviceScaleFactor: 1,
    mobile: false,
  });
  await send("Page.enable");
  await send("Page.navigate", { url: home });
  await pause(3_000);
  await run(
    `[...document.querySelectorAll("button")].find((b) => b.textContent.includes("Look around"))?.click()`,
  );
  await pause(3_000);
  await send("Page.navigate", { url: new URL(path, home).href });
  for (
    let tries = 0;
    tries < 100 &&
    !(await run(`return document.querySelector("[data-mark]") !== null`));
    tries++
  )
    await pause(200);
  await pause(1_500);
  const marks =
    await run(`return [...document.querySelectorAll("[data-mark]")].map((m) => m.getBoundingClientRect())
    .filter((r) => r.top > 250 && r.bottom < 760 && r.left > 240 && r.right < 880).map((r) => [r.x + r.width / 2, r.y + r.height / 2])`);
  console.log(
    `${await run(`return document.querySelectorAll("[data-mark]").length`)} marks drawn`,
  );
  await frames("at rest", () => pause(16));
  await frames("a pointer from mark to mark", async (n) => {
    const [x, y] = marks[(n * 7) % marks.length];
    await send("Input.dispatchMouseEvent", { type: "mouseMoved", x, y });
    await pause(16);
  });
  await frames("scrolled up and down", async (n) => {
    await send("Input.dispatchMouseEvent", {
      type: "mouseWheel",
      x: 560,
      y: 500,
      deltaX: 0,
      deltaY: n % 60 < 30 ? 40 : -40,
    });
    await pause(16);
  });
} finally {
  socket.close();
  chromium.kill();
  await pause(500);
  rmSync(profile, { recursive: true, force: true });
}
