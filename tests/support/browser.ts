import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Builder, By, Key, logging, type WebDriver, type WebElement } from 'selenium-webdriver'
import { Options, ServiceBuilder, type Driver } from 'selenium-webdriver/chrome'

process.env.SE_OFFLINE = 'true'
process.env.SE_AVOID_STATS = 'true'

const FLAGS = [
  '--headless=new', '--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage', '--disable-quic', '--no-first-run', '--disable-background-networking',
  '--disable-component-update', '--disable-sync', '--hide-scrollbars', '--force-color-profile=srgb', '--lang=en-GB',
]

/** A real Chromium without a window, with the few hands and eyes that the tests need. */
/** What a browser has besides: flags of its own, and a home with what its person trusts. */
export interface Outfit { flags?: string[], home?: string }

/** A page may take so long to show what it was asked for. With 8 s a trace of two faults was given up on a machine that was slow for a while. */
const PATIENCE_MS = 20_000

export class Browser {
  private constructor(readonly driver: WebDriver, private readonly profile: string, private readonly outfit: Outfit) {}

  /** @param profile what an earlier one left behind: a browser that is started again */
  static async open(profile = mkdtempSync(join(tmpdir(), 'browser-')), outfit: Outfit = {}): Promise<Browser> {
    const log = new logging.Preferences()
    log.setLevel(logging.Type.BROWSER, logging.Level.ALL)
    log.setLevel(logging.Type.PERFORMANCE, logging.Level.ALL)
    const options = new Options()
    options.addArguments(...FLAGS, ...outfit.flags ?? [], `--user-data-dir=${profile}`)
    options.setBinaryPath('/usr/bin/chromium')
    options.setLoggingPrefs(log)
    options.setUserPreferences({ 'download.default_directory': profile })
    const service = new ServiceBuilder('/usr/bin/chromedriver')
    if (outfit.home) service.setEnvironment({ ...process.env as Record<string, string>, HOME: outfit.home })
    const driver = await new Builder().forBrowser('chrome').setChromeOptions(options).setChromeService(service).build()
    const browser = new Browser(driver, profile, outfit)
    await browser.size(1280, 800)
    return browser
  }

  /** As a person ends a browser: what it has kept is there for the next one. */
  async endAndStartAgain(): Promise<Browser> {
    await this.driver.quit()
    return Browser.open(this.profile, this.outfit)
  }

  /** Where files go that a page gives out. */
  downloads(): string {
    return this.profile
  }

  async close(): Promise<void> {
    await this.driver.quit()
    rmSync(this.profile, { recursive: true, force: true })
  }

  cdp(command: string, params: object = {}): Promise<unknown> {
    return (this.driver as Driver).sendAndGetDevToolsCommand(command, params)
  }

  async size(width: number, height: number, mobile = false): Promise<void> {
    await this.cdp('Emulation.setDeviceMetricsOverride', { width, height, deviceScaleFactor: 1, mobile })
    await this.cdp('Emulation.setTouchEmulationEnabled', { enabled: mobile })
  }

  /** The browser's own switch: no network. */
  async offline(isOffline: boolean): Promise<void> {
    await this.cdp('Network.enable')
    await this.cdp('Network.emulateNetworkConditions', { offline: isOffline, latency: 0, downloadThroughput: -1, uploadThroughput: -1 })
  }

  /** Every answer comes this much later; 0 for none. */
  async slowNetwork(latencyMs: number): Promise<void> {
    await this.cdp('Network.enable')
    await this.cdp('Network.emulateNetworkConditions', { offline: false, latency: latencyMs, downloadThroughput: -1, uploadThroughput: -1 })
  }

  go(url: string): Promise<void> {
    return this.driver.get(url)
  }

  /** All parts of the page and the other pages are there, if it is one of ours: from here on the server may go. */
  async fetched(): Promise<void> {
    await this.driver.wait(() => this.run<boolean>('return !document.querySelector("#__nuxt") || performance.getEntriesByName("fetched").length > 0'), 15_000)
  }

  /** Waits for an element of this CSS, or of this text anywhere in it. */
  async see(css: string, text?: string, patienceMs = PATIENCE_MS): Promise<WebElement> {
    const look = async () => {
      try {
        for (const element of await this.driver.findElements(By.css(css))) {
          if (await element.isDisplayed() && (text === undefined || (await element.getText()).includes(text))) return element
        }
      }
      catch (error) {
        // The page was drawn anew between finding and reading: look again.
        if (!(error instanceof Error) || error.name !== 'StaleElementReferenceError') throw error
      }
      return null
    }
    try {
      return await this.driver.wait(look, patienceMs) as WebElement
    }
    catch {
      const body = await this.driver.findElement(By.css('body')).getText()
      throw new Error(`did not see ${css}${text ? ` with “${text}”` : ''}. The page says:\n${body.slice(0, 3000)}`)
    }
  }

  /** Waits until an element of this CSS stands still: where a dialog is on its way, a press goes beside what is meant. */
  async stands(css: string): Promise<void> {
    const place = () => this.run<string>('const r = document.querySelector(arguments[0])?.getBoundingClientRect(); return r ? [r.x, r.y, r.width].join() : ""', css)
    await this.driver.wait(async () => {
      const before = await place()
      await new Promise(resolve => setTimeout(resolve, 120))
      return before !== '' && before === await place()
    }, PATIENCE_MS)
  }

  /** Waits until nothing of this CSS (with this text) is to be seen. */
  async gone(css: string, text?: string): Promise<void> {
    await this.driver.wait(async () => {
      try {
        for (const element of await this.driver.findElements(By.css(css))) {
          if (await element.isDisplayed() && (text === undefined || (await element.getText()).includes(text))) return false
        }
        return true
      }
      catch {
        return false
      }
    }, PATIENCE_MS, `still there: ${css} ${text ?? ''}`)
  }

  async click(css: string, text?: string): Promise<void> {
    await (await this.see(css, text)).click()
  }

  /** Presses keys wherever the focus is. */
  async press(...keys: string[]): Promise<void> {
    const actions = this.driver.actions({ async: false })
    for (const key of keys) actions.sendKeys(key)
    await actions.perform()
  }

  /** Selects all of the field that has the focus and types over it. */
  async typeOver(text: string): Promise<void> {
    await this.chord(Key.CONTROL, 'a')
    await this.press(...text)
  }

  async chord(modifier: string, key: string): Promise<void> {
    await this.driver.actions().keyDown(modifier).sendKeys(key).keyUp(modifier).perform()
  }

  /** Empties a field and types into it. */
  async type(css: string, text: string): Promise<void> {
    const field = await this.see(css)
    await field.click()
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.BACK_SPACE, text)
  }

  /**
   * Types into the field of this label and hands it on by Enter. A form may come a frame after what it is of, a dialog takes the focus once it stands: both are
   * waited for.
   */
  async fill(label: string, text: string, within = 'body'): Promise<void> {
    await this.driver.wait(() => this.run<boolean>('return document.querySelector(".p-dialog-enter-active") === null'), PATIENCE_MS)
    const find = 'return [...document.querySelectorAll(`${arguments[0]} label`)].find(l => l.textContent.trim() === arguments[1])?.htmlFor ?? null'
    const id = await this.driver.wait(() => this.run<string | null>(find, within, label), PATIENCE_MS, `no field is called “${label}” in ${within}`)
    await this.type(`[id="${id}"]`, text)
    await this.press(Key.ENTER)
  }

  async text(css: string): Promise<string> {
    return (await this.see(css)).getText()
  }

  /** Closes this tab and goes on in a new, empty one. */
  async leaveTab(): Promise<void> {
    const old = await this.driver.getWindowHandle()
    await this.driver.switchTo().newWindow('tab')
    const next = await this.driver.getWindowHandle()
    await this.driver.switchTo().window(old)
    await this.driver.close()
    await this.driver.switchTo().window(next)
    await this.size(1280, 800)
  }

  async path(): Promise<string> {
    const url = new URL(await this.driver.getCurrentUrl())
    return url.pathname + url.search
  }

  run<T>(script: string, ...args: unknown[]): Promise<T> {
    return this.driver.executeScript(script, ...args)
  }

  /** Everything that the page asked the network for. */
  async requests(): Promise<string[]> {
    const entries = await this.driver.manage().logs().get(logging.Type.PERFORMANCE)
    return entries.flatMap((entry) => {
      const { message } = JSON.parse(entry.message) as { message: { method: string, params: { request?: { url: string } } } }
      return message.method === 'Network.requestWillBeSent' && message.params.request ? [message.params.request.url] : []
    })
  }

  /** Errors on the page's console. */
  async complaints(): Promise<string[]> {
    const entries = await this.driver.manage().logs().get(logging.Type.BROWSER)
    return entries.filter(e => e.level.value >= logging.Level.SEVERE.value).map(e => e.message)
  }

  async picture(file: string): Promise<void> {
    const { data } = await this.cdp('Page.captureScreenshot', { format: 'png' }) as { data: string }
    writeFileSync(file, Buffer.from(data, 'base64'))
  }
}

export { Key }
