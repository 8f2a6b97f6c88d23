<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverDimension;
use Facebook\WebDriver\WebDriverKeys;
use Tests\Browser\Support\BrowserTestCase;

/** What somebody finds on their first day: they are shown around, choose how it looks, ask what a word means, and try the interface. */
final class NewcomerTest extends BrowserTestCase
{
    public function test_they_are_shown_around_once_and_by_keyboard(): void
    {
        $this->signIn('ines.okafor');
        foreach ([1280, 390] as $width) {
            $this->browser->manage()->window()->setSize(new WebDriverDimension($width, 943));
            $this->api('PUT', 'preferences', ['toured' => false]);
            $this->open('/');
            if ($width < 640) {
                // A phone shows one leaf at a time.
                $this->see('.leaf-switch button:last-child')->click();
            }
            $this->press('Show me around');
            $seen = 0;
            do {
                $this->see('[data-tour]');
                self::assertSame('true', $this->browser->executeScript(
                    'const at = document.querySelector("[data-tour]").getBoundingClientRect();
                        return String(at.left >= 0 && at.right <= innerWidth && at.bottom <= innerHeight)',
                ));
                $last = $this->text('[data-tour] .btn.go') === 'Done';
                $place = $this->see('[data-tour]')->getAttribute('data-tour');
                $this->keys(WebDriverKeys::ENTER);
                $last || $this->until(fn (): bool => $this->see('[data-tour]')->getAttribute('data-tour') !== $place, 'for the next place');
                $seen++;
            } while (! $last);
            self::assertGreaterThanOrEqual($width < 640 ? 2 : 6, $seen);
            $this->notSee('[data-tour]');
            $this->until(fn (): bool => $this->api('GET', 'session')['preferences']['toured'] === true, 'that it is kept');
        }
        $this->browser->manage()->window()->setSize(new WebDriverDimension(1280, 943));
        $this->open('/');
        $this->see('h1');
        $this->notSee('[aria-label="New here?"]');
    }

    public function test_they_choose_how_it_looks_and_it_stays_so(): void
    {
        $this->signIn('ines.okafor');
        $this->open('/profile');
        $back = fn (): string => (string) $this->browser->executeScript('return getComputedStyle(document.body).backgroundColor');
        $this->see('label', 'Light or dark');
        $day = $back();
        $select = fn (string $value): mixed => $this->browser->executeScript(
            'const select = [...document.querySelectorAll("select")].find((one) => [...one.options].some((o) => o.value === arguments[0]));
            select.value = arguments[0]; select.dispatchEvent(new Event("change", { bubbles: true }))', [$value],
        );
        $select('dark');
        $this->until(static fn (): bool => $back() !== $day, 'for the night');
        $this->until(fn (): bool => $this->api('GET', 'session')['preferences']['scheme'] === 'dark', 'that it is kept');
        $night = $back();
        $this->open('/rules');
        $this->see('h1', 'Rules');
        self::assertSame($night, $back(), 'with the page, before anything is asked');
        $this->open('/profile');
        $this->see('label', 'Contrast');
        $select('more');
        $this->until(static fn (): bool => $back() !== $night, 'for more contrast');
        $this->until(fn (): bool => $this->api('GET', 'session')['preferences']['contrast'] === 'more', 'that this is kept too');
        $this->api('PUT', 'preferences', ['scheme' => null, 'contrast' => null]);
        $this->open('/profile');
        $this->see('label', 'Light or dark');
        self::assertSame($day, $back());
    }

    public function test_the_interface_is_read_and_tried(): void
    {
        $this->signIn('ines.okafor');
        $this->open('/setup/api');
        $this->see('input[type=search]')->sendKeys('sign-offs of record');
        $this->see('.leaf.left', 'records/{type}/{id}/sign-offs');
        $this->open('/setup/api?operation=records');
        $this->see('.leaf.right h2', '/api/records/{type}');
        $this->press('Send', '.leaf.right button');
        $this->see('pre.shown', '"rows"');
        $this->open('/setup/api?operation=comment');
        $this->open('/setup/api?operation=createRecord');
        $this->see('.leaf.right textarea')->clear()->sendKeys('{"values": ');
        $this->press('Send', '.leaf.right button');
        $this->see('.callout.bad', 'This is no JSON');
        $this->see('.leaf.right textarea')->clear()->sendKeys('{"values": {}}');
        $this->press('Send', '.leaf.right button');
        $this->press('Send it', 'dialog button');
        $this->see('.leaf.right', '422');
        $this->open('/setup/people?person='.$this->api('GET', 'session')['id']);
        $this->see('[aria-label="What is Deputy?"]')->click();
        $this->see('.floating', 'Answers for them while they are absent');
    }
}
