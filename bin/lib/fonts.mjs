import { readFileSync, writeFileSync } from 'node:fs';
import subsetFont from 'subset-font';

/*
 * Makes resources/fonts from the fonts' packages: the letters of western Europe, and of what can be varied only what the screens vary.
 * That is a quarter of the bytes. Run it when one of the packages has a new version:
 *
 *   npm install --no-save subset-font && node bin/lib/fonts.mjs
 */
const RANGES = [
    [0x20, 0x7e],
    [0xa0, 0xff],
    [0x131, 0x131],
    [0x152, 0x153],
    [0x2bb, 0x2dc],
    [0x2000, 0x206f],
    [0x20ac, 0x20ac],
    [0x2122, 0x2122],
    [0x2190, 0x2193],
    [0x2212, 0x2215],
    [0xfffd, 0xfffd],
];
const FONTS = {
    fraunces: { from: 'fraunces/files/fraunces-latin-full-normal.woff2', axes: { SOFT: 60, opsz: 40, WONK: 0, wght: 600 } },
    inter: { from: 'inter/files/inter-latin-wght-normal.woff2', axes: { wght: { min: 400, max: 700 } } },
};

const letters = RANGES.flatMap(([from, to]) => Array.from({ length: to - from + 1 }, (_, at) => String.fromCodePoint(from + at))).join('');
for (const [name, { from, axes }] of Object.entries(FONTS)) {
    const whole = readFileSync(`node_modules/@fontsource-variable/${from}`);
    const part = await subsetFont(whole, letters, { targetFormat: 'woff2', variationAxes: axes });
    writeFileSync(`resources/fonts/${name}.woff2`, part);
    console.log(`${name}: ${part.length} bytes of ${whole.length}`);
}
