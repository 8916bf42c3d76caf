import { chromium } from "@playwright/test";
const url = "http://127.0.0.1:3922";
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu"] });
export async function tablet(who, pin, { width = 1280, height = 800, theme = "light" } = {}) {
  const c = await browser.newContext({ viewport: { width, height } });
  await c.addCookies([{ name: "iridel_settings", value: `${theme}.mm`, url }]);
  const page = await c.newPage();
  await page.goto(`${url}/sign-in?who=${who}`);
  await page.fill("#pin", pin);
  await page.click("button[type=submit]");
  await page.waitForURL(`${url}/`);
  return page;
}
export const open = async (page, plate, stage) => {
  await page.goto(url);
  const href = await page.getByRole("listitem").filter({ hasText: plate }).getByRole("link").getAttribute("href");
  await page.goto(`${url}${href}/${stage}`);
  await page.waitForTimeout(700);
};
export const shot = async (page, n) => { await page.waitForTimeout(400); await page.screenshot({ path: `/tmp/shots/${n}.png` }); console.log(n); };
export const end = () => browser.close();
export { url };
