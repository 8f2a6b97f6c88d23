import { createRequire } from 'node:module';
import { pathToFileURL } from 'node:url';

/*
 * What Lighthouse finds at one page, as one line of JSON: scores from 0 to 100, requests, kilobytes and seconds.
 *
 *   node bench/lighthouse.mjs FOLDER URL COOKIES desktop|mobile      FOLDER is where Lighthouse is installed
 */
const [folder, url, cookies, form] = process.argv.slice(2);
const from = createRequire(pathToFileURL(`${folder}/index.js`));
const { default: lighthouse, desktopConfig } = await import(pathToFileURL(from.resolve('lighthouse')).href);
const { launch } = await import(pathToFileURL(from.resolve('chrome-launcher')).href);
const flags = ['--headless=new', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-sync'];
const chrome = await launch({ chromePath: process.env.CHROME_PATH ?? '/usr/bin/chromium', chromeFlags: flags, logLevel: 'silent' });
try {
    const asked = {
        port: chrome.port,
        logLevel: 'error',
        onlyCategories: ['performance', 'accessibility'],
        extraHeaders: { Cookie: cookies },
        disableStorageReset: true,
    };
    const { lhr } = await lighthouse(url, asked, form === 'desktop' ? desktopConfig : undefined);
    const score = (name) => Math.round((lhr.categories[name].score ?? 0) * 100);
    const seconds = (name) => (lhr.audits[name].numericValue ?? 0) / 1000;
    const items = lhr.audits['network-requests'].details.items;
    const failing = lhr.categories.accessibility.auditRefs.filter(({ id }) => lhr.audits[id].score === 0).map(({ id }) => id);
    process.stdout.write(
        JSON.stringify({
            performance: score('performance'),
            accessibility: score('accessibility'),
            failing,
            requests: items.length,
            kilobytes: Math.round(items.reduce((sum, item) => sum + item.transferSize, 0) / 1000),
            contents: seconds('largest-contentful-paint'),
            ready: seconds('interactive'),
            ...(process.env.VERBOSE ? { metrics: lhr.audits.metrics.details.items[0] } : {}),
        }) + '\n',
    );
} finally {
    chrome.kill();
}
