<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use Tests\Browser\Support\BrowserTestCase;

/** The parts of the screens, by keyboard alone: what is typed, stepped, ticked, chosen and closed. */
final class PartsTest extends BrowserTestCase
{
    public function test_every_part_is_worked_by_keyboard(): void
    {
        $this->signIn('ines.okafor');
        $this->open('/parts');
        $day = fn () => $this->see('[aria-label="A day"]');
        $dates = fn (string $said) => $this->see('[data-part=dates]', $said);
        foreach (['24 Nov 2027' => '2027-11-24', '3 Jan 2027' => '2027-01-03', '2026-02-28' => '2026-02-28'] as $typed => $is) {
            $day()->clear()->sendKeys($typed.Key::ENTER);
            $dates($is);
        }
        $day()->sendKeys(Key::ARROW_UP.Key::ENTER);
        $dates('2026-03-01');
        // What is no date is told at once, changes nothing, and is not taken away.
        $day()->clear()->sendKeys('soonish');
        $this->see('.date-reading', '“soonish” is no date.');
        $day()->sendKeys(Key::ENTER);
        $dates('2026-03-01');
        self::assertSame('soonish', $day()->getAttribute('value'));
        $day()->clear()->sendKeys('5 Dec 2026'.Key::ENTER);
        $this->see('[aria-label="A moment"]')->clear()->sendKeys('1 Dec 2026 14:30'.Key::TAB);
        $dates('2026-12-05 2026-12-01T14:30');
        // Its calendar, a day further by the arrows.
        $day()->sendKeys([Key::ALT, Key::ARROW_DOWN]);
        $this->see('.floating', 'December 2026');
        $this->browser->getKeyboard()->sendKeys([Key::ALT, Key::ESCAPE]);
        $this->notSee('.floating');

        $this->see('input[type=search]')->sendKeys('palm');
        $this->see('[data-part=search]', 'Searched for “palm”.');
        $this->see('select[aria-label=Priority]')->sendKeys('High');
        $this->see('[data-part=choices]', 'high, ticked, lobby, both');
        $this->browser->executeScript("document.querySelector('[name=way][value=both]').focus()");
        $this->browser->getKeyboard()->sendKeys(Key::ARROW_RIGHT);
        $this->see('[data-part=choices]', 'lobby, create');

        $this->press('A list…');
        $this->see('.floating [role=combobox]')->sendKeys('bir'.Key::ENTER);
        $this->see('[data-part=list]', 'Birchmoor');
        $this->press('A dialog…');
        $this->see('dialog', 'Delete T-0042?');
        $this->browser->getKeyboard()->sendKeys(Key::ESCAPE);
        $this->notSee('dialog[open]');
        $this->press('Go');
        $this->see('[role=status]', 'It is done.');
    }
}
