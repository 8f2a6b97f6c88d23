<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use Tests\Browser\Support\BrowserTestCase;

/** A rule with nested groups, three lines and a message, written by keyboard alone; previewed, fired, and the letter read. */
final class MessageRuleTest extends BrowserTestCase
{
    public function test_a_rule_with_a_message_is_written_by_keyboard_and_its_letter_read(): void
    {
        $this->signIn('ines.okafor');
        $this->begin();
        $this->conditions();
        $this->lines();
        $this->message();
        $this->fire();
        $this->readTheLetter();
        $this->sayItBeside();
    }

    private function begin(): void
    {
        $this->open('/rules');
        $this->see('a.line', 'Urgent ticket, tell the lead');
        $this->goTo('text', 'New rule', Key::TAB);
        $this->keys(Key::ENTER);
        $this->choose('Tickets');
        $this->see('[aria-label="Name of the rule"]');
        $this->goTo('aria-label', 'Name of the rule', Key::TAB);
        $this->keys('Urgent at a good customer'.Key::ENTER);
        $this->saved();
        $this->goTo('data-word', '/when|choose', Key::TAB);
    }

    private function conditions(): void
    {
        $this->goTo('data-word', '/onlyIf|condition');
        $this->keys(Key::ENTER);
        $this->field('/onlyIf/of/0', 'Priority', 'Urgent');
        $this->goTo('data-word', '/onlyIf|group');
        $this->keys(Key::ENTER);
        $this->field('/onlyIf/of/1/of/0', 'Customer Plan', 'Full care');
        // The same once more, for another plan; and that one a group further in.
        $this->keys(Key::CONTROL.'d');
        $this->until(fn (): bool => count(preg_grep('/Plan is Full care/', $this->rows()) ?: []) === 2, 'for the copy');
        $this->goTo('data-word', '/onlyIf/of/1/of/1/value|value');
        $this->keys(Key::ENTER);
        $this->choose('Care');
        $this->goTo('data-word', '/onlyIf/of/1/of/1/value|value');
        $this->keys(Key::ALT.Key::ARROW_RIGHT);
        $this->until(fn (): bool => count(array_keys($this->rows(), 'any of', true)) === 2, 'for the inner group');
        $this->saved();
    }

    private function lines(): void
    {
        $this->line('Set fields', '/lines/0/set/0/field|choose');
        $this->take('Review');
        $this->see('[data-word="/lines/0/set/0/to|value"].editing');
        $this->choose('Needed');
        // Until the server has worded it, the focus may still come back to the row.
        $this->until(fn (): bool => preg_grep('/Review to Needed/', $this->rows()) !== [], 'for the value');
        $this->goTo('data-word', '/lines/0/set/0/to|value');
        $this->line('Give a task', '/lines/1/title|text');
        $this->see('.floating #title:focus');
        $this->keys('Ring about {number}'.Key::ENTER);
        $this->notSee('.floating');
        $this->until(fn (): bool => str_contains(implode(' ', $this->rows()), 'Ring about {number}'), 'for the title');
        // It goes up, and down again.
        $this->goTo('data-word', '/lines/1/title|text');
        $this->keys(Key::ALT.Key::ARROW_UP);
        $this->until(fn (): bool => str_starts_with(array_slice($this->rows(), -2)[0], 'Give'), 'for the task to stand first');
        $this->goTo('data-word', '/lines/0/title|text');
        $this->keys(Key::ALT.Key::ARROW_DOWN);
        $this->until(fn (): bool => str_starts_with(array_slice($this->rows(), -2)[0], 'Set'), 'for the order to come back');
    }

    private function message(): void
    {
        $this->line('Send a message', '/lines/2/to/0|choose');
        $this->take('the owner');
        $this->see('dialog #subject');
        $this->goTo('id', 'subject', Key::TAB);
        $this->keys('About {subject}');
        $this->goTo('role', 'textbox', Key::TAB);
        $this->keys('Please look into it.');
        $this->see('[data-preview]', 'Please look into it.');
        $this->see('[data-preview]', 'Ines Okafor <ines.okafor@larkmoss.example>');
        $this->goTo('text', 'Done', Key::TAB);
        $this->keys(Key::ENTER);
        $this->notSee('dialog');
        $this->until(fn (): bool => in_array('Send the owner an e-mail “About {subject}”', $this->rows(), true), 'for the message');
        $this->saved();
        $this->goTo('text', 'Put in force…', Key::SHIFT.Key::TAB);
        $this->keys(Key::ENTER);
        $this->see('dialog', 'The conditions hold now');
        $this->goTo('text', 'Put in force', Key::TAB);
        $this->keys(Key::ENTER);
        $this->see('.stamp', 'In force');
    }

    private function fire(): void
    {
        $this->open('/records/ticket?search=pots');
        $this->see('table.ledger tbody tr', 'Wrong pots delivered');
        $this->keys(Key::ENTER);
        $this->see('h1', 'Wrong pots delivered');
        $this->keys('e');
        $this->see('#field-owner')->sendKeys(Key::ENTER);
        $this->choose('Bram');
        $this->see('#field-priority')->sendKeys('Urgent');
        $this->keys(Key::CONTROL.Key::ENTER);
        $this->see('[role=status]', 'Urgent at a good customer');
        $this->see('[data-kind=fired]', 'E-mail “About Wrong pots delivered” to Bram Castellan');
        $this->press('Messages');
        $this->see('[data-message]', 'About Wrong pots delivered');
        $this->see('[data-message] .stamp', 'delivered');
    }

    private function readTheLetter(): void
    {
        $this->tab('Mail room');
        $this->see('.envelope', 'About Wrong pots delivered')->click();
        $this->see('.leaf.right h2', 'About Wrong pots delivered');
        $this->see('article.letter', 'Please look into it.');
        $this->press('Headers');
        $this->see('pre', 'bram.castellan@larkmoss.example');
        $this->see('input[type=search]')->sendKeys('nothing like it');
        $this->see('.empty', 'No letter fits');
    }

    /** A comment, a tag, a guard made ready again: what stands beside a record. */
    private function sayItBeside(): void
    {
        $this->open('/records/ticket?search=pots');
        $this->press('Wrong pots delivered');
        $this->see('[aria-label=Comment]')->sendKeys('The pots are on their way.'.Key::CONTROL.Key::ENTER);
        $this->see('[data-kind=comment]', 'The pots are on their way.');
        $this->press('Files and guards');
        $this->press('Follow');
        $this->see('.word.person', 'Ines Okafor');
        $this->press('Delete this ticket');
        $this->press('Delete');
        $this->press('Bring it back');
        $this->see('h1', 'Wrong pots delivered');
    }

    /** Chooses field and value of the condition that was just begun. */
    private function field(string $at, string $field, string $value): void
    {
        // The choice opens by itself, and the next one behind it.
        $this->take($field);
        $this->until(
            fn (): bool => preg_grep('/'.str_replace(' ', ' › ', $field).' is choose a value/', $this->rows()) !== [],
            'for the field',
        );
        $this->choose($value);
        $this->until(fn (): bool => preg_grep("/ is {$value}$/", $this->rows()) !== [], 'for the value');
        $this->goTo('data-word', "{$at}/value|value");
    }

    private function line(string $label, string $gap): void
    {
        $this->goTo('data-word', '/lines|add');
        $this->keys(Key::ENTER);
        $this->take($label);
        $this->see("[data-word='{$gap}'].editing, dialog[open]");
    }
}
