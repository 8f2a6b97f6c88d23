<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverDimension;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Browser\Support\BrowserTestCase;

/**
 * Every screen, judged by axe-core: nothing that is serious or critical stands in anybody's way, and no word is cut off. In German, whose
 * words are long.
 */
final class AccessibleTest extends BrowserTestCase
{
    /** Address => what is there once it is drawn. */
    private const SCREENS = [
        '/' => '[data-word], h1', '/records/ticket' => 'table.ledger tbody tr', '/records/ticket/1' => 'h1',
        '/records/ticket/new' => 'form', '/records/ticket?group=status' => '.group-head', '/records/ticket?layout=board' => '.board-card',
        '/records/ticket/import' => 'h1', '/records/customer/1' => 'h1', '/rules' => 'h1', '/rules/1' => '[data-word]',
        '/tasks' => 'h1', '/sign-offs' => 'h1', '/ledger' => 'h1', '/ledger/1' => 'h1', '/mail-room' => 'h1', '/setup' => 'h1',
        '/setup/letters' => 'h1', '/slips' => 'h1', '/setup/slips' => '[data-word]', '/setup/systems' => 'h1', '/setup/in-step' => 'h1',
        '/setup/hooks' => 'h1', '/setup/people' => '[aria-pressed]', '/setup/types' => '[data-field]', '/setup/roles' => '[aria-pressed]',
        '/setup/carry' => 'h1', '/setup/api' => 'pre, form',
        '/setup/calendars' => 'h1', '/setup/ladders' => 'h1', '/setup/conditions' => 'h1', '/profile' => 'h1', '/parts' => 'h1',
    ];

    /** Besides the usual look. */
    private const LOOKS = [
        'by night' => ['dark', 'usual'], 'with more contrast' => ['light', 'more'], 'by night with more contrast' => ['dark', 'more'],
    ];

    /** What opens on a screen: its address, and the buttons that are pressed one after the other. */
    private const OPENED = [
        ['/', 'My day', null], ['/', 'My team', null], ['/records/customer/1', 'Related', null],
        ['/records/customer/1', 'Related', 'New ticket'], ['/records/customer/1', 'Merge this customer with another', null],
        ['/tasks', 'Lapsed', null], ['/tasks', 'New task', null],
    ];

    /** @return iterable<string, array{int, int}> */
    public static function windows(): iterable
    {
        yield 'at a desk' => [1280, 800];
        yield 'on a phone' => [390, 844];
    }

    #[DataProvider('windows')]
    public function test_no_screen_stands_in_anybodys_way(int $width, int $height): void
    {
        $this->browser->manage()->window()->setSize(new WebDriverDimension($width, $height));
        $axe = (string) file_get_contents(dirname(__DIR__, 2).'/node_modules/axe-core/axe.min.js');
        $this->open('/');
        $this->see('#email');
        $found = ['/sign-in' => $this->violations($axe)];
        $this->signIn('ines.okafor');
        $this->api('PUT', 'language', ['language' => 'de']);
        foreach (self::SCREENS as $path => $drawn) {
            $this->open($path);
            // A phone shows one leaf of two.
            $this->see($width < 640 ? 'main h1, main h2, main [role=tablist]' : $drawn);
            $this->until(
                fn (): bool => $this->browser->executeScript(
                    'return document.querySelectorAll("main").length === 1 && document.querySelectorAll("main h1").length === 1',
                ) === true,
                "for one main area with one heading on {$path}",
            );
            $found[$path] = [...$this->violations($axe), ...$this->cut()];
            $width < 640 || $found += $this->inEveryLook($path, $axe);
            if ($width < 640) {
                $found["{$path}, its width"] = array_filter([(string) $this->browser->executeScript(
                    'return document.documentElement.scrollWidth > innerWidth ? `${document.documentElement.scrollWidth} pixels` : ""',
                )]);
            }
        }
        $this->api('PUT', 'language');
        foreach ($width < 640 ? [] : self::OPENED as [$path, $first, $then]) {
            $this->open($path);
            $this->press($first);
            $then === null || $this->press($then);
            $found["{$path}, {$first} {$then}"] = $this->violations($axe);
            $found += $this->inEveryLook("{$path}, {$first} {$then}", $axe);
        }
        self::assertSame([], array_filter($found), (string) json_encode(array_filter($found), JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES));
    }

    /** @return array<string, list<string>> what is too faint in the looks besides the usual one, by place and look */
    private function inEveryLook(string $place, string $axe): array
    {
        $found = [];
        foreach (self::LOOKS as $look => [$scheme, $contrast]) {
            $this->browser->executeScript('Object.assign(document.documentElement.dataset, arguments[0])', [
                ['scheme' => $scheme, 'contrast' => $contrast],
            ]);
            $found["{$place}, {$look}"] = $this->violations($axe, ['color-contrast']);
        }

        return $found;
    }

    /** @return list<string> buttons, tabs, links and headings that reach out of their leaf, where nothing scrolls sideways */
    private function cut(): array
    {
        $found = $this->browser->executeScript('
            const scrolls = (element) => element && !element.matches(".leaf")
                && (["auto", "scroll"].includes(getComputedStyle(element).overflowX) || scrolls(element.parentElement));
            return [...document.querySelectorAll(".leaf")].flatMap((leaf) => {
                const edge = leaf.getBoundingClientRect().right + 1;
                return [...leaf.querySelectorAll("button, a, h1, h2, [role=tab]")].filter((element) => element.offsetParent
                    && element.textContent.trim() && element.getBoundingClientRect().right > edge && !scrolls(element.parentElement))
                    .map((element) => `cut off: ${element.textContent.trim()}`);
            });
        ');

        return is_array($found) ? array_values(array_map(strval(...), $found)) : [];
    }

    /**
     * @param  list<string>  $rules  only these; all where there are none
     * @return list<string>
     */
    private function violations(string $axe, array $rules = []): array
    {
        // What still fades in is fainter than it will be.
        $this->until(
            fn (): bool => $this->browser->executeScript('return document.getAnimations()
                .every((one) => one.playState !== "running" || one.effect.getTiming().iterations === Infinity)') === true,
            'until nothing moves any more',
        );
        $this->browser->executeScript("window.axe || (() => { {$axe} })()");
        $found = $this->browser->executeAsyncScript('
            const done = arguments[arguments.length - 1];
            const only = arguments[0].length ? { runOnly: arguments[0] } : {};
            axe.run(document, { resultTypes: ["violations"], ...only }).then((results) => done(results.violations
                .filter((one) => ["serious", "critical"].includes(one.impact))
                .map((one) => `${one.id}: ` + one.nodes.slice(0, 4).map((node) => `${node.target.join(" ")} ${node.any[0]?.message
                    ?? node.all[0]?.message ?? ""}`).join(" | "))));
        ', [$rules]);

        return is_array($found) ? array_values(array_map(strval(...), $found)) : [];
    }
}
