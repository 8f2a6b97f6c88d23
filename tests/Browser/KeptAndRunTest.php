<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys as Key;
use Tests\Browser\Support\BrowserTestCase;

/** What rules share, the order they answer in, and a rule run by hand on a selection. */
final class KeptAndRunTest extends BrowserTestCase
{
    public function test_a_letter_is_kept_changed_and_deleted(): void
    {
        $this->signIn('ines.okafor');
        $this->open('/setup/letters');
        $this->press('New');
        $this->press('Save the letter');
        $this->see('[role=alert]', 'Give it a name.');
        $this->type('Name', 'Autumn check');
        $this->see('#subject')->sendKeys('Your plants in {boat}');
        $this->see('[role=textbox]')->sendKeys('We come by in October.');
        $this->press('Save the letter');
        $this->see('[role=alert]', 'boat');
        self::assertSame('We come by in October.', $this->text('[role=textbox]'), 'what was written is still there');
        $subject = $this->see('#subject');
        $subject->clear();
        $subject->sendKeys('Your plants this autumn');
        $this->press('Save the letter');
        $this->see('[role=status]', 'Version 1 of “Autumn check” is saved.');
        $this->see('.leaf.left', 'no rule sends it');

        $this->see('[role=textbox]')->sendKeys(Key::CONTROL.Key::END);
        $this->keys(' Really.');
        $this->press('Save as version 2');
        $this->see('[role=status]', 'Version 2 of “Autumn check” is saved.');
        $this->see('.leaf.right', 'version 1: Ines Okafor');
        $this->browser->navigate()->refresh();
        $this->press('Autumn check', '.leaf.left button b');
        $this->see('[role=textbox]', 'We come by in October. Really.');
        $this->press('Delete…');
        $this->press('Delete', 'dialog button');
        $this->notSee('.leaf.left', 'Autumn check');
    }

    public function test_a_condition_gets_a_name_and_a_rule_uses_it(): void
    {
        $this->signIn('ines.okafor');
        $this->open('/setup/conditions');
        $this->press('New');
        $this->type('Name', 'Our best');
        $this->press('+ condition');
        $this->choose('Key account');
        $this->press('Save');
        $this->see('[role=status]', '“Our best” is saved.');
        $this->see('.leaf', 'Key account is ticked');
        $this->see('.leaf', 'no rule uses it');

        $this->import(['name' => 'Greet our best', 'on' => 'customer', 'when' => ['kind' => 'created_or_changed'], 'onlyIf' => [
            'kind' => 'all', 'of' => [['kind' => 'named', 'name' => 'Our best']],
        ],
            'fires' => ['kind' => 'becomes_true'],
            'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Ring {name}', 'due' => null]]]);
        self::assertContains('it is one of ‘Our best’', $this->rows());
        $this->open('/setup/conditions');
        $this->see('.leaf', 'used by Greet our best');
        $this->press('Larger hotels', '.leaf.left button b');
        $this->press('Delete…');
        $this->press('Delete', 'dialog button');
        $this->see('[role=alert], [role=status]', 'is used by Say hello to hotels in spring');
        $this->see('.leaf', 'Larger hotels');
    }

    public function test_the_order_of_rules_is_changed_by_keyboard_and_stays(): void
    {
        $this->signIn('ines.okafor');
        $this->open('/rules');
        $this->see('a.line[data-rule]');
        $before = $this->order();
        self::assertGreaterThan(2, count($before));
        $this->browser->executeScript('document.querySelector("a.line[data-rule]").focus()');
        $this->keys(Key::ALT.Key::ARROW_DOWN);
        $moved = [$before[1], $before[0], ...array_slice($before, 2)];
        $this->until(fn (): bool => $this->order() === $moved, 'for the rules to change places');
        self::assertSame(
            $before[0],
            (string) $this->browser->switchTo()->activeElement()->getAttribute('data-rule'),
            'the focus goes with the rule',
        );
        $this->browser->navigate()->refresh();
        $this->until(fn (): bool => $this->order() === $moved, 'for the order to have stayed');
        $this->browser->executeScript("document.querySelector('a.line[data-rule=\"{$before[0]}\"]').focus()");
        $this->keys(Key::ALT.Key::ARROW_UP);
        $this->until(fn (): bool => $this->order() === $before, 'for the order as it was');
        $this->tab('Ledger');
        $this->press('Administration', '.segments button');
        $this->see('[data-number]', 'order');
    }

    public function test_a_rule_is_run_by_hand_on_a_selection(): void
    {
        $this->signIn('ines.okafor');
        $this->import(['name' => 'Look at them again', 'on' => 'ticket', 'when' => ['kind' => 'by_hand'],
            'onlyIf' => ['kind' => 'all', 'of' => []],
            'fires' => ['kind' => 'once_per_record'],
            'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'doer'], 'title' => 'Look at {number}', 'due' => null]]]);
        $this->press('Put in force…');
        $this->press('Put in force', 'dialog button');
        $this->see('.stamp', 'In force');

        foreach (['fired', 'silent'] as $came) {
            $this->open('/records/ticket');
            $this->see('table.ledger tbody tr');
            foreach ([0, 1] as $row) {
                $this->see("table.ledger tbody tr[data-index=\"{$row}\"] input[type=checkbox]")->click();
            }
            $this->see('[aria-live=polite]', '2 chosen');
            $this->press('Run…');
            $this->choose('Look at them');
            $this->see('dialog', 'Its conditions and its repeat guard hold all the same.');
            $this->press('Run it');
            $this->see('[role=progressbar][aria-valuenow="100"]');
            $this->until(
                fn (): bool => count(array_filter(
                    $this->browser->findElements(WebDriverBy::cssSelector('dialog .stamp')),
                    static fn ($stamp): bool => mb_strtolower($stamp->getText()) === $came,
                )) === 2,
                "for both to be told {$came}",
            );
            if ($came === 'fired') {
                $this->press('Close', 'dialog button');
                $this->notSee('[aria-live=polite]', 'chosen');
            }
        }
        $this->press('Why?', 'dialog a');
        $this->see('.leaf.right', 'What the rules made of it');
        $this->see('[data-answers]', 'Look at them again The rule did not fire');
    }

    /** @param  array<string, mixed>  $file */
    private function import(array $file): void
    {
        $this->open('/rules');
        $this->press('Import');
        $this->see('dialog textarea')->sendKeys((string) json_encode(['format' => 'vivid-ledger/rule/1'] + $file));
        $this->press('Import as a draft');
        $this->see('[aria-label="Name of the rule"]');
        $this->see('.stamp', 'Draft, page 1');
    }

    /** @return list<string> ids of the rules of the first record type, as they stand */
    private function order(): array
    {
        $ids = $this->browser->executeScript(
            'return [...document.querySelector(".margined")?.querySelectorAll("a.line[data-rule]") ?? []].map((row) => row.dataset.rule)',
        );

        return is_array($ids) ? array_values(array_map(strval(...), $ids)) : [];
    }

    /** Types into the input that goes by a name. */
    private function type(string $label, string $text): void
    {
        $this->see("input[aria-label=\"{$label}\"]")->sendKeys($text);
    }
}
