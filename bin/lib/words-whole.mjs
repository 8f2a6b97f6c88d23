import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import config from '../../wuchale.config.js';

/*
 * The message files have what the screens say and nothing else, and every message is said in every language, with the same places to
 * fill in; exits 1 and names what is amiss.
 *
 *   node bin/lib/words-whole.mjs
 */
const languages = config.locales.filter((code) => code !== 'en');
const files = languages.map((code) => `lang/screens/${code}.po`);
const read = () => files.map((file) => readFileSync(file, 'utf8'));
const before = read();
execFileSync('npx', ['wuchale', '--clean'], { stdio: ['ignore', 'ignore', 'inherit'] });
const stale = read().some((now, index) => now !== before[index]);
if (stale) console.log('The message files were not those of the screens; they are now. Say what is new in every language (npm run words).');
const text = (block, key) =>
    [...block.matchAll(new RegExp(`^${key}(?:\\[\\d\\])? ((?:".*"\\n?)+)`, 'gm'))].map(([, lines]) =>
        lines
            .trim()
            .split('\n')
            .map((line) => JSON.parse(line))
            .join(''),
    );
const places = (message) => (message.match(/\{\d+\}|<\d+\/?>/g) ?? []).sort().join(' ');
let count = 0;
const wrong = [];
for (const language of languages) {
    const blocks = readFileSync(`lang/screens/${language}.po`, 'utf8').split('\n\n').slice(1);
    for (const block of blocks) {
        const [own = ''] = text(block, 'msgid');
        const said = text(block, 'msgstr');
        count++;
        const isWhole = said.length > 0 && said.every((form) => form !== '' && places(form) === places(own));
        if (!isWhole) wrong.push(`${language}: ${own}`);
    }
}
if (stale || wrong.length) process.exitCode = 1;
const good = `${count} messages of the screens, whole in every language`;
console.log(wrong.length ? `Not said, or with other places:\n${wrong.join('\n')}` : good);
