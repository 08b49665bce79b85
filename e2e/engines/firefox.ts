import { type Browser, launch } from 'puppeteer-core';

/**
 * Debian's Firefox without a window, driven by WebDriver BiDi.
 *
 * @see https://www.w3.org/TR/webdriver-bidi/
 */
export function firefox(): Promise<Browser> {
  return launch({
    browser: 'firefox',
    executablePath: '/usr/bin/firefox-esr',
    headless: true,
    defaultViewport: { width: 1280, height: 800 },
    // all studies are computed by one call
    protocolTimeout: 180_000,
  });
}
