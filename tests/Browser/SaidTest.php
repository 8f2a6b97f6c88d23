<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use Tests\Browser\Support\BrowserTestCase;

/** A rule that is said as people talk: in one sentence, then line by line; what is unclear is asked, what is misspelt is mended. */
final class SaidTest extends BrowserTestCase
{
    private const LINE = '[aria-label="Write a line"]';

    public function test_a_rule_is_said_in_a_sentence_and_goes_on_line_by_line(): void
    {
        $this->signIn('ines.okafor');
        $rule = $this->api('POST', 'rules', ['file' => [
            'name' => '', 'on' => 'quote', 'when' => ['kind' => 'created_or_changed'], 'onlyIf' => ['kind' => 'all', 'of' => []],
            'fires' => ['kind' => 'becomes_true'], 'lines' => [],
        ]]);
        $this->open("/rules/{$rule['id']}");
        $sentence = $this->see('[aria-label="The rule in one sentence"]');
        $sentence->sendKeys('When a quote is won, give whoever created it a task "Send a welcome pack" due in two working days, only once');
        $this->see('[data-understood]');
        $sentence->sendKeys(WebDriverKeys::ENTER);
        $this->notSee('[aria-label="The rule in one sentence"]');
        $this->until(fn (): bool => array_slice($this->rows(), 0, 1) === ['a Quote is changed in Stage to Won'], 'for the trigger');
        self::assertContains('Give the creator a task “Send a welcome pack” due 2 working days later', array_map(
            static fn (string $row): string => (string) preg_replace('/ \+ .*$/', '', $row),
            $this->rows(),
        ));
        self::assertContains('once per quote', array_map(
            static fn (string $row): string => (string) preg_replace('/ \+ .*$/', '', $row),
            $this->rows(),
        ));
        // Five o'clock can be in the morning and in the afternoon.
        $line = $this->see(self::LINE)->sendKeys('remind the owner "Look" after 3 days at 5');
        $this->see('[data-meanings]', '2 things');
        $this->see('[role=option][aria-selected=true]', 'at 05:00');
        $line->sendKeys(WebDriverKeys::ARROW_DOWN);
        $this->see('[role=option][aria-selected=true]', 'at 17:00');
        $line->sendKeys(WebDriverKeys::ENTER);
        $this->see('[data-row="/lines/1"]', '17:00');
        // What is nearly spelt right is mended by one key.
        $line = $this->see(self::LINE)->sendKeys('set discont to 12');
        $this->see('[data-misread]', 'Did you mean ‘Discount’?');
        $line->sendKeys(WebDriverKeys::TAB);
        $this->until(
            fn (): bool => trim((string) $this->see(self::LINE)->getAttribute('value')) === 'set Discount to 12',
            'for the word to be mended',
        );
        $this->see('[data-understood]');
        $line->sendKeys(WebDriverKeys::ENTER);
        $this->see('[data-row="/lines/2"]', 'Set Discount to 12');
        $this->saved();
    }
}
