<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverDimension;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Browser\Support\BrowserTestCase;

/**
 * Whatever can be pressed can be reached: nothing lies outside its box, out of the window or under something else, on any screen, in any
 * pop-over and dialog, at a desk, in a small window, at 200 % and on a phone.
 */
final class LayoutTest extends BrowserTestCase
{
    private const SCREENS = [
        '/', '/records/ticket', '/records/ticket/1', '/records/ticket/new', '/records/ticket?group=status', '/records/ticket?layout=board',
        '/records/ticket/import', '/records/customer/1', '/rules', '/tasks', '/sign-offs', '/slips', '/ledger', '/ledger/1', '/mail-room',
        '/setup', '/setup/letters', '/setup/slips', '/setup/systems', '/setup/hooks', '/setup/people', '/setup/types', '/setup/roles',
        '/setup/routes', '/setup/carry', '/setup/api', '/setup/calendars', '/setup/ladders', '/setup/conditions', '/setup/in-step',
        '/profile', '/parts',
    ];

    /** What opens: its address, and what is pressed one after the other. */
    private const OPENED = [
        ['/tasks', 'New task'], ['/records/ticket', 'New ticket'], ['/records/customer/1', 'Merge this customer with another'],
        ['/setup/people', 'Invite'], ['/setup/types', 'New field'], ['/setup/ladders', 'New ladder'], ['/setup/calendars', 'New calendar'],
        ['/', 'Turn forward'], ['/rules', 'New rule'],
    ];

    /** Rules with words of many kinds: dates, ladders, timetables, letters, steps of a sign-off, slips. */
    private const RULES = [
        'Renewal of an agreement', 'Visit overdue ladder', 'Morning list of tickets', 'Large quote: up the tree, then finance',
        'Ask for photos', 'Chase a silent customer', 'A customer is taken over',
    ];

    private const JUDGE = <<<'JS'
        const top = [...document.querySelectorAll('dialog[open], .floating')].filter((one) => one.offsetParent !== null
            || getComputedStyle(one).position === 'fixed').at(-1) ?? document.body;
        const scrolls = (element, axis) => element && element !== document.documentElement
            && (/auto|scroll/.test(getComputedStyle(element)[axis === 'x' ? 'overflowX' : 'overflowY'])
                || scrolls(element.parentElement, axis));
        const said = (element) => `${element.tagName.toLowerCase()} “${(element.getAttribute('aria-label') || element.textContent
            || element.name || element.id || '').trim().slice(0, 40)}”`;
        const found = [];
        for (const element of top.querySelectorAll('button, a[href], input, select, textarea, [role=option]')) {
            const style = getComputedStyle(element);
            if (element.offsetParent === null && style.position !== 'fixed') continue;
            // What is folded up has its place already.
            if (!element.checkVisibility({ contentVisibilityAuto: true, opacityProperty: false })) continue;
            if (element.disabled || style.visibility === 'hidden' || style.pointerEvents === 'none' || element.type === 'file') continue;
            if (element.closest('.sr-only, [inert]') || /inset|rect/.test(style.clipPath + style.clip)) continue;
            let box = element.getBoundingClientRect();
            if (box.width < 2 || box.height < 2) continue;
            if (box.bottom > innerHeight - 1 || box.top < 0 || box.right > innerWidth + 1 || box.left < 0) {
                element.scrollIntoView({ block: 'center', inline: 'nearest' });
                box = element.getBoundingClientRect();
            }
            if ((box.right > innerWidth + 1 || box.left < -1)) { found.push(`out of the window: ${said(element)}`); continue; }
            if (box.bottom > innerHeight + 1 || box.top < -1) {
                if (box.height < innerHeight) found.push(`out of the window, up or down: ${said(element)}`);
                continue;
            }
            const frame = element.closest('.floating, dialog, .leaf');
            if (frame) {
                const around = frame.getBoundingClientRect();
                if ((box.right > around.right + 1 || box.left < around.left - 1) && !scrolls(element.parentElement, 'x')) {
                    found.push(`out of its box: ${said(element)}`);
                    continue;
                }
            }
            const label = element.closest('label')
                ?? (element.id ? document.querySelector(`label[for="${CSS.escape(element.id)}"]`) : null);
            // A link in a text has several boxes: its first is judged.
            const under = () => {
                const part = element.getClientRects()[0] ?? box;
                const hit = document.elementFromPoint(part.left + part.width / 2, part.top + part.height / 2);
                return hit && (element.contains(hit) || label?.contains(hit) || hit.closest('a, button')?.contains(element))
                    ? null : hit ?? document.body;
            };
            if (under()) element.scrollIntoView({ block: 'center', inline: 'center' });
            const above = under();
            if (above) found.push(`under ${said(above)} (${above.className}): ${said(element)}`);
        }
        return [...new Set(found)];
        JS;

    /** @return iterable<string, array{int, int}> */
    public static function windows(): iterable
    {
        yield 'at a desk' => [1280, 800];
        yield 'in a small window' => [1024, 700];
        yield 'at 200 %' => [640, 400];
        yield 'on a phone' => [390, 844];
    }

    #[DataProvider('windows')]
    public function test_whatever_can_be_pressed_can_be_reached(int $width, int $height): void
    {
        $this->signIn('ines.okafor');
        $this->sized($width, $height);
        $found = [];
        foreach (self::SCREENS as $path) {
            $this->open($path);
            $this->see('main h1, main h2, main [role=tablist], main [data-word]');
            $this->quiet();
            $found[$path] = $this->judged();
        }
        foreach (self::OPENED as [$path, $pressed]) {
            $this->open($path);
            $this->see('main h1, main h2, main [role=tablist], main [data-word]');
            if ($this->pressed($pressed)) {
                $this->quiet();
                $found["{$path}, {$pressed}"] = $this->judged();
            }
        }
        self::assertSame([], array_filter($found), (string) json_encode(array_filter($found), JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE));
    }

    /** @return iterable<string, array{int, int}> */
    public static function editors(): iterable
    {
        yield 'at a desk' => [1280, 800];
        yield 'on a phone' => [390, 844];
    }

    /** Every word of rules of many kinds opens an editor whose parts can all be pressed. */
    #[DataProvider('editors')]
    public function test_the_editor_of_every_word_can_be_used(int $width, int $height): void
    {
        $this->signIn('ines.okafor');
        $this->sized($width, $height);
        $rules = array_column($this->api('GET', 'rules'), 'id', 'name');
        $found = [];
        $seen = [];
        foreach (array_intersect_key($rules, array_flip(self::RULES)) as $name => $id) {
            $this->open("/rules/{$id}");
            $this->see('[data-word]');
            $words = $this->browser->executeScript(
                'return [...document.querySelectorAll("main [data-word]")].map((one) => one.dataset.word)',
            );
            foreach (is_array($words) ? $words : [] as $word) {
                // Of words whose editors look alike one is enough.
                $kind = (string) preg_replace('/\d+/', '#', (string) $word);
                if (isset($seen[$kind]) || preg_match('/\|(begin|condition|group)$/', (string) $word) === 1) {
                    continue;
                }
                $seen[$kind] = true;
                $this->browser->executeScript('document.querySelector(`[data-word="${CSS.escape(arguments[0])}"]`)?.click()', [$word]);
                $this->see('.floating, dialog[open]');
                $this->quiet();
                $found["{$name}: {$word}"] = $this->judged();
                $this->browser->getKeyboard()->sendKeys(WebDriverKeys::ESCAPE);
                $this->notSee('.floating, dialog[open]');
            }
        }
        self::assertGreaterThan(30, count($seen));
        self::assertSame([], array_filter($found), (string) json_encode(array_filter($found), JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE));
    }

    private function sized(int $width, int $height): void
    {
        // The window has a frame of its own around what is inside.
        $inside = $this->browser->executeScript('return [outerWidth - innerWidth, outerHeight - innerHeight]');
        $this->browser->manage()->window()->setSize(new WebDriverDimension($width + (int) $inside[0], $height + (int) $inside[1]));
    }

    /** Waits until nothing is being loaded any more. */
    private function quiet(): void
    {
        $this->until(fn (): bool => $this->browser->executeScript(
            'const now = performance.getEntriesByType("resource").length, same = window.__loaded === now; window.__loaded = now;'
                .' return same;',
        ) === true, 'for everything to be there');
    }

    private function pressed(string $text): bool
    {
        return $this->browser->executeScript('
            const one = [...document.querySelectorAll("button, a")].find((each) => each.offsetParent
                && (each.textContent.trim() === arguments[0] || each.getAttribute("aria-label") === arguments[0]));
            one?.click();
            return Boolean(one);
        ', [$text]) === true;
    }

    /** @return list<string> */
    private function judged(): array
    {
        $found = $this->browser->executeScript(self::JUDGE);

        return is_array($found) ? array_values(array_map(strval(...), $found)) : [];
    }
}
