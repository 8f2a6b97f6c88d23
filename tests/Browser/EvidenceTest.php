<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use Tests\Browser\Support\BrowserTestCase;

/** A rule typed as text, rehearsed, proofread, proven, looked back on and reversed, as a person goes through it. */
final class EvidenceTest extends BrowserTestCase
{
    private const CHASE = <<<'TEXT'
        Rule "Typed chase"
        When a Ticket is created or changed
        Only if Status is Waiting on customer
        Fires when the conditions become true
        Set Review to Needed
        After 3 days at 09:00: remind the owner "{number} waits"
        After 5 days at 09:00: give the owner a task "Ring about {number}"
        Until it gets a reply or Status is not Waiting on customer
        TEXT;

    public function test_a_rule_is_written_by_typing_only_and_rehearsed_with_what_ifs(): void
    {
        $this->signIn('ines.okafor');
        $this->newRule(self::CHASE."\nset Nothing to now");
        $this->see('dialog [data-misread="1"]', '‘Nothing’ is not understood here');
        // What is typed into the page is completed, too.
        $page = $this->see('dialog textarea')->sendKeys([WebDriverKeys::CONTROL, WebDriverKeys::END, WebDriverKeys::NULL, "\nset Prio"]);
        $this->see('dialog [role=listbox] [aria-selected=true]', 'Priority');
        $page->sendKeys(WebDriverKeys::TAB)->sendKeys('to ');
        $this->see('dialog [role=listbox] [role=option]', 'Normal');
        $page->sendKeys('Ur');
        $this->see('dialog [role=listbox] [aria-selected=true]', 'Urgent');
        $page->sendKeys(WebDriverKeys::TAB);
        self::assertStringEndsWith("\nset Priority to Urgent ", (string) $page->getAttribute('value'));
        $page->sendKeys('and Rev');
        $this->see('dialog [role=listbox]', 'Review');
        $page->sendKeys(WebDriverKeys::ESCAPE);
        $this->notSee('dialog [role=listbox]');
        $this->see('dialog textarea');
        $this->press('Cancel', 'dialog button');
        $this->openAsText(self::CHASE, true);
        $this->press('Use this text', 'dialog button');
        $this->notSee('dialog[open] textarea');
        $this->saved();
        // One more line, completed while it is typed.
        $line = $this->see('[aria-label="Write a line"]');
        $line->sendKeys('after 8 days set Sta');
        $this->see('[role=listbox] [aria-selected=true]', 'Status');
        $line->sendKeys(WebDriverKeys::TAB);
        $line->sendKeys('to Clo');
        $this->see('[role=listbox] [aria-selected=true]', 'Closed');
        $line->sendKeys(WebDriverKeys::TAB);
        $this->see('[data-understood]');
        $line->sendKeys(WebDriverKeys::ENTER);
        $this->until(fn (): bool => in_array('Set Status to Closed', $this->rows(), true), 'for the line to be written');
        $this->saved();

        // Its whole life on a record, before anything is in force.
        $this->see('[role=tab]', 'Rehearse')->click();
        $this->see('[data-rehearsal=done]', 'Waiting on customer');
        $this->see('[data-paper=line]', 'waits');
        $this->see('[data-tally]', '1 note, ');
        // The pretend clock runs from the beginning to the end.
        $this->press('Let it play');
        $this->see('.paper.ahead');
        $this->see('[aria-label="Let it play"]');
        $this->notSee('.paper.ahead');
        $this->press('+ a reply');
        $this->press('Suppose it', '.floating button');
        $this->see('[data-what-if="0"]', 'a reply arrives');
        $this->see('[data-tally]', 'Without the what-if:');
        $this->see('.paper .struck');
        // The reply is moved beyond everything, key by key, and nothing is struck out any more.
        for ($days = 0; $days < 8; $days++) {
            $this->see('[data-mark="0"]')->sendKeys(WebDriverKeys::ARROW_RIGHT);
            $this->see('[data-rehearsal=done]');
        }
        $this->notSee('.paper .struck');
        $this->press('+ a change');
        $this->see('.floating select[aria-label="Another field"]')->sendKeys('Priority');
        $this->see('.floating label', 'Priority');
        $this->press('Done', '.floating button');
        $this->see('[data-what-if="1"]', 'Priority');
        $this->see('[data-tally]', 'Without the what-ifs:');
    }

    public function test_a_remark_is_followed_and_goes(): void
    {
        $this->signIn('ines.okafor');
        $this->newRule(
            str_replace(
                ['Typed chase', 'when the conditions become true'],
                ['A letter at each save', 'every time'],
                self::CHASE,
            )."\nRemind the owner \"Again\"\n",
        );
        $this->press('Use this text', 'dialog button');
        $this->see('[role=tab]', 'Remarks')->click();
        $this->see('[data-remark=each_save]', 'at each save');
        $this->see('.word.remarked', 'every time');
        $this->press('When the conditions become true', '[data-remark] button');
        $this->notSee('[data-remark=each_save]');
        $this->until(fn (): bool => in_array('when the conditions become true', $this->rows(), true), 'for the advice to be followed');
        // It is there again when one comes back, from another screen too.
        $this->saved();
        $this->openRule('A letter at each save');
        $this->until(fn (): bool => in_array('when the conditions become true', $this->rows(), true), 'for the page as it was left');
    }

    public function test_a_proof_is_broken_by_another_rule_read_and_accepted(): void
    {
        $this->signIn('ines.okafor');
        $this->newRule(str_replace('Typed chase', 'Proven chase', self::CHASE));
        $this->press('Use this text', 'dialog button');
        $this->saved();
        $this->putInForce();
        $this->see('[role=tab]', 'Rehearse')->click();
        $this->see('[data-rehearsal=done] [data-tally]');
        $this->press('Keep as a proof');
        $this->see('#proof')->clear()->sendKeys('A silent customer is chased'.WebDriverKeys::ENTER);
        $this->see('.sub', '1 proof holds');

        $this->tab('Rules');
        $this->newRule(
            "Rule \"Breaks it\"\nWhen a Ticket is changed in Review\nOnly if Review is Needed\nFires every time\nSet Priority to Urgent "
                ."and Escalate to ticked\n",
        );
        $this->press('Use this text', 'dialog button');
        $this->saved();
        $this->see('[role=tab]', 'Proofs')->click();
        $this->see('[data-proof="A silent customer is chased"][data-holds=false]', 'Breaks it: Priority set to Urgent');
        $this->putInForce();
        $this->openRule('Proven chase');
        $this->see('[role=tab]', 'Proofs')->click();
        $this->see('[data-proof="A silent customer is chased"][data-holds=false]', '+');
        $this->press('accept what comes now');
        $this->see('[data-proof="A silent customer is chased"][data-holds=true]');
        $this->openRule('Breaks it');
        $this->retire();
        $this->openRule('Proven chase');
        $this->retire();
    }

    public function test_a_rule_is_looked_back_on_and_what_it_did_is_reversed(): void
    {
        $this->signIn('ines.okafor');
        $this->newRule(
            "Rule \"Reviews the costly\"\nWhen a Ticket is changed in Cost\nOnly if Cost is over 500\nFires every time\nSet Review to "
                ."Needed\n",
        );
        $this->press('Use this text', 'dialog button');
        $this->saved();
        $this->putInForce();
        $this->tab('Records');
        $this->press('Gnats in meeting room 4');
        $this->press('Edit');
        $this->see('#field-cost')->clear()->sendKeys('900');
        $this->press('Save');
        $this->see('[data-field=review]', 'Needed');
        // Which rules can change the field is a question away.
        $this->press('Review', '[data-field] button');
        $this->see('.floating', 'Reviews the costly');
        $this->keys(WebDriverKeys::ESCAPE);

        $this->openRule('Reviews the costly');
        $this->see('[role=tab]', 'Look back')->click();
        $this->press('Look back', '.btn');
        $this->see('[data-look-back=done]', 'It would have fired once.');
        $this->see('[data-look-back=done]', 'The same as the page in force.');
        $this->see('[data-fire]')->click();
        $this->see('.floating', 'as it stood on');
        $this->see('.floating', '900');
        $this->keys(WebDriverKeys::ESCAPE);
        $this->see('[role=tab]', 'Entries')->click();
        $this->press('a record', '[data-ask-why] button');
        $this->choose('Gnats');
        $this->see('[data-ask-why]', 'The rule fires.');

        $this->press('More for this rule');
        $this->press('Reverse what it did…');
        $this->see('[data-reversal]', '1 field returns to what it was');
        $this->press('Reverse 1 entry', 'dialog button');
        $this->see('[role=status]', 'reversed');
        $this->tab('Records');
        $this->press('Gnats in meeting room 4');
        $this->notSee('[data-field=review]', 'Needed');
        $this->see('[data-kind=reversed]', 'reversed entry');
        $this->openRule('Reviews the costly');
        $this->see('[role=tab]', 'Pages')->click();
        $this->see('[data-page="1"]', 'Page 1');
        $this->retire();
    }

    private function newRule(string $text): void
    {
        $this->tab('Rules');
        $this->press('New rule');
        $this->choose('Tickets');
        $this->see('[aria-label="Name of the rule"]');
        $this->openAsText($text);
    }

    private function openAsText(string $text, bool $typed = false): void
    {
        $this->press('More for this rule');
        $this->press('As text…');
        $this->until(
            fn (): bool => str_contains(
                (string) $this->browser->executeScript('return document.querySelector("dialog textarea")?.value ?? ""'),
                'When',
            ),
            'for the text of the page',
        );
        $box = $this->see('dialog textarea')->sendKeys([WebDriverKeys::CONTROL, 'a', WebDriverKeys::NULL]);
        // Pasted, unless the typing is what is tried.
        $typed ? $box->sendKeys($text) : $this->browser->executeScript('document.execCommand("insertText", false, arguments[0])', [$text]);
    }

    private function putInForce(): void
    {
        $this->press('Put in force…');
        $this->see('dialog', 'now');
        $this->press('Put in force', 'dialog button');
        $this->see('.stamp', 'In force');
    }

    private function openRule(string $name): void
    {
        $this->tab('Rules');
        $this->see('a.line', $name)->click();
        $this->until(
            fn (): bool => $this->see('[aria-label="Name of the rule"]')->getAttribute('value') === $name,
            "for the page of {$name}",
        );
    }

    private function retire(): void
    {
        $this->press('More for this rule');
        $this->press('Retire…');
        $this->press('Retire the rule', 'dialog button');
        $this->see('.stamp', 'Retired');
    }
}
