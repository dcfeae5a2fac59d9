import type { Page } from "@playwright/test";
import { confirmVolumes, expect } from "./app";

/*
 * What a person does at the photometer's screens, for the tests of assays and rates.
 */

/** Takes the wavelength that the method takes, and goes on to the stage with this title. */
export async function takeUsualWavelength(page: Page, nm: number, next: string) {
  await page.getByRole("button", { name: `Take the usual ${nm} nm` }).click();
  await expect(page.getByTestId("result-wavelength")).toHaveText(`${nm} nm`);
  await page.getByRole("link", { name: `Go on: ${next}` }).click();
  const stages = page.getByRole("list", { name: "Stages" });
  await expect(stages.locator("[aria-current=step]")).toContainText(next);
  await confirmVolumes(page);
}

/** What is read once for a stage, typed into its dialog. */
export async function typeOnce(page: Page, button: string | RegExp, text: string) {
  await page.getByRole("button", { name: button }).click();
  await page.getByRole("dialog").getByRole("textbox").first().fill(text);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("dialog")).toBeHidden();
}

export const inHand = (page: Page) => page.getByTestId("flask-in-hand");
export const absorbance = (page: Page) => page.getByRole("textbox", { name: "Absorbance", exact: true });

/** Reads the flask that the screen asks for, by keyboard, and waits until it is saved. */
export async function read(page: Page, flask: string, text: string) {
  await expect(inHand(page)).toHaveText(flask);
  await absorbance(page).focus();
  await page.keyboard.insertText(text);
  await page.keyboard.press("Enter");
  await expect(absorbance(page)).toHaveValue("");
}

/** Nothing wider than the window, at the widths of a tablet, a phone and a desk. */
export async function noOverflow(page: Page) {
  for (const width of [768, 390, 1280]) {
    await page.setViewportSize({ width, height: 844 });
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth))
      .toBe(0);
  }
}
