<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use Tests\Browser\Support\BrowserTestCase;

/** The thinnest slice, as a person goes through it: write a rule, put it in force, see it fire, ask why, do the task. */
final class FirstRuleTest extends BrowserTestCase
{
    public function test_a_rule_is_written_put_in_force_fires_once_and_is_explained(): void
    {
        $this->signIn('ines.okafor');
        $this->findATicket();
        $this->writeTheRule();
        $this->makeATicketUrgent();
        $this->askWhyAndWhyNot();
        $this->leaveAndComeBack();
        $this->doTheTask();
        $this->pauseAndRetire();
    }

    private function findATicket(): void
    {
        $this->tab('Records');
        $this->see('h1', 'Tickets');
        $this->see('table.ledger tbody tr', 'Gnats in meeting room 4');
        $this->see('input[type=search]')->sendKeys('wilting');
        $this->notSee('table.ledger', 'Gnats in meeting room 4');
        $this->press('Ficus wall wilting');
        $this->see('h1', 'Ficus wall wilting');
        $this->see('.nowline', 'Now');
        $this->see('[data-kind=created]', 'created it');
    }

    private function writeTheRule(): void
    {
        $this->tab('Rules');
        $this->press('New rule');
        $this->choose('Tickets');
        $this->see('[aria-label="Name of the rule"]')->sendKeys('Costly and urgent'.WebDriverKeys::ENTER);
        $this->saved();

        $this->see('[aria-label="What the rule is for"]')->sendKeys('Costs are looked at early'.WebDriverKeys::ENTER);
        $this->saved();

        // The next thing to choose opens by itself.
        $this->press('+ condition');
        $this->take('Priority');
        $this->choose('Urgent');
        $this->saved();
        $this->press('+ group');
        $this->until(fn (): bool => in_array('any of', $this->rows(), true), 'for the group');
        $this->take('Customer Plan');
        $this->see('[data-word="/onlyIf/of/1/of/0/value|value"].editing');
        $this->keys(WebDriverKeys::ESCAPE);
        $this->notSee('.floating');
        $this->see('[data-word="/onlyIf/of/1/of/0/kind|choose"]', 'is')->click();
        $this->take('is none');
        $this->see('[data-word="/onlyIf/of/1/of/0/values|value"].editing');
        $this->keys('Courtesy', WebDriverKeys::ARROW_DOWN);
        $this->see('.floating [role=option]')->click();
        $this->press('Done', '.floating button');
        $this->saved();

        $this->press('+ a line');
        $this->take('Set fields');
        $this->take('Review');
        $this->choose('Needed');
        $this->press('+ a line');
        $this->take('Give a task');
        $this->see('.floating #title')->sendKeys('Look in on {number}'.WebDriverKeys::ENTER);
        $this->notSee('.floating');
        $this->word('1 day later');
        $this->see('.floating input[type=number]')->clear()->sendKeys('2'.WebDriverKeys::ENTER);
        $this->notSee('.floating');
        $this->saved();

        self::assertSame([
            'a Ticket is created or changed', 'all of', 'Priority is Urgent', 'any of', 'Customer › Plan is none of '
                .'Courtesy', 'when the conditions become true',
            'Set Review to Needed', 'Give the owner a task “Look in on {number}” due 2 days later',
        ], $this->rows());
        $this->see('[role=tab]', 'Remarks')->click();
        $this->see(
            '.leaf.right',
            'Reads aloud: When a Ticket is created or changed, only if Priority is Urgent and Customer › Plan is none of Courtesy',
        );

        // What was taken away by mistake comes back.
        $this->see('[data-row="/lines/1"] [data-word]')->sendKeys(WebDriverKeys::DELETE);
        $this->until(fn (): bool => count($this->rows()) === 7, 'for the line to go');
        $this->press('Undo');
        $this->until(fn (): bool => count($this->rows()) === 8, 'for the line to come back');
        $this->saved();
        $this->press('Put in force…');
        $this->see('dialog', 'The conditions hold now');
        $this->press('Put in force');
        $this->see('.stamp', 'In force');
    }

    private function makeATicketUrgent(): void
    {
        $this->openTheTicket();
        $this->press('Edit');
        $this->see('#field-priority')->sendKeys('Urgent');
        $this->press('Save');
        $this->see('[role=status]', 'Costly and urgent fired');
        $this->see('[data-field=review]', 'Needed set by a rule just now');
        $this->see('[data-ahead]', 'Task falls due: Look in on T-');
    }

    private function askWhyAndWhyNot(): void
    {
        $this->press('Why?');
        $this->see('[data-kind=fired]', '✓ Priority is Urgent saw Urgent');
        $this->see('[data-kind=fired]', 'they did not hold before this change');

        $this->press('Edit');
        $this->see('#field-hours')->sendKeys('1.5');
        $this->press('Save');
        $this->see('[role=status]', 'No rule fired');
        $this->see('[data-kind=changed]', 'Hours spent: empty → 1.50');
        $this->press('Why not?');
        $this->see('[data-answers]', 'Costly and urgent The rule did not fire: its conditions already held before this change');
    }

    private function leaveAndComeBack(): void
    {
        foreach (['Low' => 'No rule fired', 'Urgent' => 'Costly and urgent fired'] as $priority => $told) {
            $this->press('Edit');
            $this->see('#field-priority')->sendKeys($priority);
            $this->press('Save');
            $this->see('[role=status]', $told);
        }
        // A wrong value stays where it was typed, with its message.
        $this->press('Edit');
        $this->see('#field-cost')->sendKeys('a lot');
        $this->press('Save');
        $this->see('.note-wrong', 'Cost takes a number such as 12.50.');
        self::assertSame('a lot', $this->see('#field-cost')->getAttribute('value'));
        $this->press('Cancel');
        $this->tab('Ledger');
        $this->press('Rules', '.segments button');
        $this->see('[data-number]', 'Costly and urgent fired on T-')->click();
        $this->see('.leaf.right', 'Why it fired');
        $this->see('.leaf.right', 'found by: owner Ines Okafor');
        $this->see('.leaf.right', 'this entry');
    }

    private function doTheTask(): void
    {
        $this->tab('Tasks');
        $this->see('[data-task]', 'Look in on T-');
        $open = count($this->browser->findElements(\Facebook\WebDriver\WebDriverBy::cssSelector('[data-task]')));
        $this->see('[data-task] input')->click();
        $this->until(
            fn (): bool => count($this->browser->findElements(\Facebook\WebDriver\WebDriverBy::cssSelector('[data-task]'))) === $open - 1,
            'for the task to leave the list',
        );
        $this->press('Undo');
        $this->until(
            fn (): bool => count($this->browser->findElements(\Facebook\WebDriver\WebDriverBy::cssSelector('[data-task]'))) === $open,
            'for the task to come back',
        );
    }

    private function pauseAndRetire(): void
    {
        $this->tab('Rules');
        $this->see('[aria-label^="Search names"]')->sendKeys('looked at early');
        $this->notSee('a.line', 'Full care goes first');
        $this->see('[role=switch][aria-label="On: Costly and urgent"][aria-checked=true]')->click();
        $this->see('[role=status]', '“Costly and urgent” is off.');
        $this->see('a.line .stamp', 'Paused');
        $this->see('a.line', 'Costly and urgent')->click();
        $this->see('.leaf.left [role=switch][aria-checked=false]')->click();
        $this->see('.stamp', 'In force');
        $this->press('More for this rule');
        $this->press('Pause');
        $this->see('.stamp', 'Paused');
        $this->press('More for this rule');
        $this->press('Retire…');
        $this->press('Retire the rule');
        $this->see('.stamp', 'Retired');
        $this->press('Entries', '[role=tab]');
        $this->see('.leaf.right', 'retired, page 1, by Ines Okafor');
    }

    private function openTheTicket(): void
    {
        $this->tab('Records');
        $this->press('Ficus wall wilting');
        $this->see('h1', 'Ficus wall wilting');
    }
}
