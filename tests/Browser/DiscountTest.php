<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use Tests\Browser\Support\BrowserTestCase;

/** A rule about discounts with cases, and with what follows each answer to its sign-off, written from nothing and seen at work. */
final class DiscountTest extends BrowserTestCase
{
    public function test_a_rule_with_cases_and_three_answers_is_written_from_nothing_and_decides(): void
    {
        $name = 'Sedge '.bin2hex(random_bytes(4));
        $this->signIn('ines.okafor');
        $this->tab('Rules');
        $this->press('New rule');
        $this->choose('Quotes');
        $this->see('[aria-label="Name of the rule"]')->sendKeys($name.Key::ENTER);
        $this->saved();
        $this->press('+ condition');
        $this->take('Subject');
        $this->see('.floating input:focus');
        $this->keys(Key::ESCAPE);
        $this->notSee('.floating');
        $this->see('[data-word="/onlyIf/of/0/kind|choose"]')->click();
        $this->take('contains');
        $this->see('.floating input:focus, .floating textarea:focus');
        $this->keys($name, Key::ENTER);
        $this->notSee('.floating');
        $this->saved();
        $this->writeTheCases();
        $this->askForASignOff();
        $this->press('Put in force…');
        $this->press('Put in force', 'dialog button');
        $this->see('.stamp', 'In force');
        $this->open('/rules');
        $this->see('input[type=search]')->sendKeys($name);
        $this->see('a.line', $name);
        $this->see('.stamp', 'In force');

        $quotes = [];
        foreach (['8' => 'Deep', '2' => 'Small'] as $discount => $which) {
            $quotes[$which] = $this->api('POST', 'records/quote', ['values' => [
                'subject' => "{$name} {$which}", 'customer' => 1, 'stage' => 'draft', 'amount' => '1000', 'discount' => (string) $discount,
                'owner' => 'jonas.pike',
            ]])['record']['id'];
        }
        $this->signOut();
        $this->signIn('clea.harrow');
        foreach (['Deep' => 'Agree', 'Small' => 'Decline'] as $which => $answer) {
            $this->open('/sign-offs');
            $this->see('[data-sign-off] button', "{$name} {$which}")->click();
            $this->see('.leaf.right h2', "{$name} {$which}");
            $this->press($answer === 'Agree' ? 'Agree…' : 'Decline…', '.leaf.right button');
            $this->see('dialog textarea')->sendKeys('As said');
            $this->press($answer, 'dialog button');
            $this->notSee('[data-sign-off]', "{$name} {$which}");
        }
        $this->open("/records/quote/{$quotes['Deep']}");
        $this->see('.leaf', 'More than usual');
        $this->see('.leaf', 'It may go out');
        $this->open("/records/quote/{$quotes['Small']}");
        $this->see('.leaf', 'Not so much');
        $this->see('.leaf', 'It has to be looked at again');
        $this->notSee('.leaf', 'It may go out');
    }

    /** By keyboard: a case, another below it, and a line in each. */
    private function writeTheCases(): void
    {
        $this->press('+ a line');
        $this->take('If …');
        $this->take('Discount');
        $this->see('.floating input:focus');
        $this->keys(Key::ESCAPE);
        $this->notSee('.floating');
        $this->see('[data-word="/lines/0/that/of/0/kind|choose"]')->click();
        $this->take('is over');
        $this->see('.floating input:focus');
        $this->keys('5', Key::ENTER);
        $this->notSee('.floating');
        $this->comment('/lines/0', 'More than usual');
        $this->see('[data-row="/lines/1"] [data-word="/lines/1/text|text"]')->click();
        $this->keys(Key::ESCAPE);
        $this->notSee('.floating');
        $this->keys(Key::ALT.Key::ENTER);
        $this->choose('Otherwise');
        $this->until(fn (): bool => in_array('Otherwise', $this->rows(), true), 'for the other case');
        $this->comment('/lines/2', 'Not so much');
        $this->saved();
    }

    /** The page brings a place for each answer. */
    private function askForASignOff(): void
    {
        $this->press('+ a line', '[data-word="/lines|add"]');
        $this->choose('In all cases');
        $this->press('+ a line', '[data-word="/lines|add"]');
        $this->choose('Ask for a sign-off');
        $stands = static fn (string $how): string => "the sign-off “sign_off” is {$how}";
        $places = ["If {$stands('agreed')}", "Otherwise, if {$stands('declined')}", "Otherwise, if {$stands('timed out')}"];
        $this->until(
            fn (): bool => array_values(array_intersect($this->rows(), $places)) === $places,
            'for a place for each answer, in their order',
        );
        $this->comment('/lines/7', 'It has to be looked at again');
        $this->comment('/lines/6', 'It may go out');
        $this->saved();
    }

    private function comment(string $heading, string $text): void
    {
        $this->see("[data-word='{$heading}|line']")->click();
        $this->see('.floating input:focus');
        // Esc leaves it where one was, from where the keyboard goes on.
        $this->keys(Key::ESCAPE);
        $this->notSee('.floating');
        $this->until(
            fn (): bool => $this->browser->switchTo()->activeElement()->getAttribute('data-word') === "{$heading}|line",
            'for the focus to come back',
        );
        $this->keys(Key::ENTER);
        $this->take('Comment');
        $this->see('.floating textarea:focus');
        $this->keys($text, Key::CONTROL.Key::ENTER);
        $this->notSee('.floating');
        $this->until(fn (): bool => (bool) preg_grep('/“'.preg_quote($text, '/').'”/', $this->rows()), 'for the comment');
    }
}
