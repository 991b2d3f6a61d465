// Takes the pictures in docs/screenshots/ from a demo that runs on the given address (default http://127.0.0.1:5460).
import { chromium } from "@playwright/test";

const base = process.argv[2] ?? "http://127.0.0.1:5460";
const shots = new URL("../docs/screenshots/", import.meta.url).pathname;
const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium",
  args: [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--disable-background-networking",
  ],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const shoot = async (name) => {
  await page.waitForLoadState("networkidle");
  await page.screenshot({ path: `${shots}${name}.png` });
};

await page.goto(base);
await page.getByTitle("P1050233.JPG").first().click();
await shoot("pictures");
await page.getByRole("button", { name: /^Cover/ }).click();
const frame = page.locator("[data-part=frame]");
const box = await frame.boundingBox();
await page.mouse.move(box.x + box.width * 0.55, box.y + box.height * 0.04);
await page.mouse.wheel(0, -400);
await page.waitForTimeout(1200);
await shoot("framing");
await page.getByRole("button", { name: /weighing/ }).click();
await page.waitForSelector("[data-download]");
await page.getByRole("button", { name: "2x" }).click();
await page.waitForTimeout(4000);
await shoot("weighing");
await page.goto(base);
await page.getByTitle("barometer-from-chat.jpg").first().click();
await page.getByRole("button", { name: /^Opening picture, large/ }).click();
await page.getByRole("button", { name: /Lighter surround/ }).click();
await page.waitForTimeout(1500);
await shoot("framing-too-small");
await browser.close();
