<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys as Key;
use Tests\Browser\Support\BrowserTestCase;

/** Lists and records: what a person does with them all day, and what happens when two do it at once. */
final class RecordsTest extends BrowserTestCase
{
    public function test_a_record_is_made_with_what_is_missing_told_at_its_field(): void
    {
        $this->signIn('bram.castellan');
        $this->open('/records/ticket');
        $this->press('New ticket');
        $this->see('#field-subject')->sendKeys('Palm losing fronds');
        $this->see('#field-cost')->sendKeys('twelve');
        $this->keys(Key::CONTROL.Key::ENTER);
        $this->see('.note-wrong', 'Customer has to be filled in.');
        $this->see('.note-wrong', 'Cost takes a number such as 12.50.');
        self::assertSame('Palm losing fronds', $this->see('#field-subject')->getAttribute('value'), 'what was typed is still there');

        $this->see('#field-cost')->clear()->sendKeys('12,5');
        $this->see('#field-customer')->click();
        $this->choose('Brine');
        $this->see('#field-owner')->click();
        $this->choose('Lena');
        $this->see('#field-due')->sendKeys('dec 1 2026');
        $this->press('Save');
        $this->see('[role=status]', 'Saved.');
        $this->see('h1', 'Palm losing fronds');
        $this->see('[data-field=customer]', 'Brine & Barrow Hotel');
        $this->see('[data-field=cost]', '€ 12.50');
        $this->see('[data-field=due]', '1 Dec 2026');
        $this->see('[data-kind=created]', 'Bram Castellan created it');
        $this->press('Brine & Barrow Hotel');
        $this->see('h1', 'Brine & Barrow Hotel');
    }

    public function test_a_list_is_narrowed_by_a_sentence_and_sorted(): void
    {
        $this->signIn('lena.abara');
        $this->open('/records/ticket');
        $this->see('table.ledger tbody tr', 'Gnats in meeting room 4');
        $this->press('+ condition');
        $this->choose('Subject');
        $this->until(
            fn (): bool => $this->browser->findElements(WebDriverBy::cssSelector('[data-word="/filter/of/0/kind|choose"]')) !== [],
            'for the condition',
        );
        $this->press('is', '[data-word]');
        $this->choose('starts with');
        $this->press('choose a value', '[data-word]');
        $this->see('.floating #typed')->sendKeys('wrong'.Key::ENTER);
        $this->notSee('table.ledger tbody', 'Gnats in meeting room 4');
        $this->see('table.ledger tbody tr', 'Wrong pots delivered');
        self::assertStringContainsString('filter=', $this->browser->getCurrentURL(), 'the address keeps the filter');
        $this->browser->navigate()->refresh();
        $this->see('[data-word]', '“wrong”');
        $this->notSee('table.ledger tbody', 'Gnats in meeting room 4');
        $this->press('Remove this condition');
        $this->see('table.ledger tbody tr', 'Gnats in meeting room 4');

        $subjects = fn (): array => array_map(
            static fn ($cell): string => $cell->getText(),
            $this->browser->findElements(WebDriverBy::cssSelector('tbody td:nth-child(3)')),
        );
        foreach (['ascending', 'descending'] as $order) {
            $this->press('Subject'.($order === 'descending' ? ' ↑' : ''), 'th button');
            $this->see("th[aria-sort={$order}]", 'Subject');
            $this->until(function () use ($subjects, $order): bool {
                $expected = $shown = $subjects();
                $order === 'ascending' ? sort($expected, SORT_FLAG_CASE | SORT_STRING) : rsort($expected, SORT_FLAG_CASE | SORT_STRING);

                return count($shown) > 2 && $shown === $expected;
            }, "for the list in {$order} order");
        }
        $this->see('input[type=search]')->sendKeys('no such thing');
        $this->see('.empty', 'No ticket fits.');
        $this->press('Show all');
        $this->see('table.ledger tbody tr', 'Wrong pots delivered');
    }

    public function test_the_list_is_walked_by_keyboard(): void
    {
        $this->signIn('lena.abara');
        $this->open('/records/ticket?sort=subject');
        $this->see('tr.on');
        $second = $this->see('tr[data-index="1"] td:nth-child(3)')->getText();
        $this->see('body')->sendKeys(Key::ARROW_DOWN);
        $this->see('tr.on', $second);
        $this->see('.leaf.right h2', $second);
        $this->see('body')->sendKeys(Key::ENTER);
        $this->see('h1', $second);
        $this->see('body')->sendKeys('e');
        $this->see('#field-subject');
        $this->see('#field-subject')->sendKeys(Key::ESCAPE);
        $this->notSee('#field-subject');
    }

    public function test_several_records_are_changed_together_and_taken_back(): void
    {
        $this->signIn('ines.okafor');
        // Of its own, so that the journey can be walked again.
        $wall = 'Wall '.bin2hex(random_bytes(4));
        foreach (['One', 'Two', 'Three'] as $which) {
            $this->api(
                'POST',
                'records/ticket',
                [
                    'values' => [
                        'subject' => "{$wall} {$which}", 'customer' => 1, 'status' => 'open', 'priority' => 'low', 'owner' => 'ines.okafor',
                    ],
                ],
            );
        }
        $priorities = fn (): array => array_map(
            static fn (array $row): string => $row['values']['priority'],
            $this->api('GET', 'records/ticket?search='.rawurlencode($wall))['rows'],
        );
        $this->open('/records/ticket?search='.rawurlencode($wall));
        $this->see('table.ledger tbody tr', "{$wall} Three");
        $this->see('input[aria-label="Choose all on this page"]')->click();
        $this->press('Change…');
        $this->see('.floating [role=option]', 'Priority')->click();
        $this->see('.floating [role=option]', 'High')->click();
        $this->see('dialog', 'Tried on paper on 3 tickets.');
        $this->press('Change 3 tickets');
        $this->see('[data-progress=done]', '3 of 3 tickets saved');
        self::assertSame(['high', 'high', 'high'], $priorities());
        $this->press('Undo', 'dialog button');
        $this->see('[data-progress=undone]', '3 of 3 taken back.');
        self::assertSame(['low', 'low', 'low'], $priorities());
    }

    public function test_two_people_change_the_same_record(): void
    {
        $this->signIn('ines.okafor');
        $this->open('/records/ticket?sort=subject&search=Gnats');
        $this->press('Gnats in meeting room 4');
        // What nobody else has touched goes through, whatever else changed.
        $this->press('Edit');
        $this->see('#field-hours')->clear()->sendKeys('2');
        $this->meanwhile('topic', 'Watering');
        $this->press('Save');
        $this->see('[data-field=hours]', '2.00');
        $this->see('[data-field=topic]', 'Watering');

        // The same field is asked about, and nothing that was typed is lost.
        $this->press('Edit');
        $this->see('#field-hours')->clear()->sendKeys('3');
        $this->meanwhile('hours', '5');
        $this->press('Save');
        $this->see('[role=alert]', 'Ines Okafor changed Hours spent to 5.00 after you opened it.');
        $this->see('[role=alert]', 'Hours spent 2.00 → 5.00');
        self::assertSame('3', $this->see('#field-hours')->getAttribute('value'));
        $this->press('Save mine over it');
        $this->see('[data-field=hours]', '3.00');
        $this->see('[data-field=topic]', 'Watering');
    }

    /** Somebody else saves in another window. */
    private function meanwhile(string $field, string $value): void
    {
        $mine = $this->browser->getWindowHandle();
        $address = $this->browser->getCurrentURL();
        $this->browser->switchTo()->newWindow();
        $this->browser->get($address);
        $this->press('Edit');
        $input = $this->see("#field-{$field}");
        // A choice is typed to; a number is written anew.
        (is_numeric($value) ? $input->clear() : $input)->sendKeys($value);
        $this->press('Save');
        $this->see("[data-field={$field}]", $value);
        $this->browser->close();
        $this->browser->switchTo()->window($mine);
    }

    public function test_a_person_makes_and_revokes_a_token_and_signs_out(): void
    {
        $this->signIn('lena.abara');
        $this->open('/profile');
        $this->see('form:has(select) input[maxlength="80"]')->sendKeys('nightly export');
        $this->see('form:has(select) input[type=password]')->sendKeys('larkmoss');
        $this->press('Create a token');
        $token = (string) $this->see('[aria-label="The new token"]')->getAttribute('value');
        $context = stream_context_create([
            'http' => ['header' => "Authorization: Bearer {$token}\r\nAccept: application/json", 'ignore_errors' => true],
        ]);
        $address = getenv('BROWSER_URL').'/api/session';
        self::assertStringContainsString('Lena Abara', (string) file_get_contents($address, false, $context));
        $this->press('Revoke');
        $this->see('[role=status]', 'works no more');
        self::assertStringContainsString('not_signed_in', (string) file_get_contents($address, false, $context));
        $this->press('Sign out');
        $this->see('#email');
        $this->open('/ledger');
        $this->see('#email');
    }

    public function test_a_ticket_is_added_to_its_customer_and_goes_on_by_its_path(): void
    {
        $this->signIn('bram.castellan');
        $mark = 'Path '.bin2hex(random_bytes(3));
        $this->open('/records/customer/1');
        $this->press('Related', '.segments button');
        $this->press('New ticket');
        // It names the customer already, and what does not do is said in the dialog.
        $customer = $this->see('.leaf.left h1')->getText();
        self::assertSame($customer, $this->see('dialog #field-customer')->getText());
        $this->press('Save', 'dialog button');
        $this->see('dialog [aria-invalid=true], dialog .bad');
        $this->see('dialog #field-subject')->sendKeys($mark);
        $this->press('Save', 'dialog button');
        $this->notSee('dialog[open]');
        $this->see('[aria-label=Tickets] a', $mark)->click();
        $this->see('h1', $mark);
        $this->see('[aria-label^="Time at each stage"] button', 'Waiting on customer')->click();
        $this->see('.floating', 'fires');
        $this->press('Move to Waiting on customer');
        $this->see('.leaf.left header', 'Waiting on customer');
        $this->see('.leaf.right', 'Status: Open → Waiting on customer');
    }

    public function test_two_customers_that_are_one_are_merged(): void
    {
        $this->signIn('ines.okafor');
        $mark = 'Twin'.bin2hex(random_bytes(3));
        $make = fn (string $name, array $values): int => $this->api('POST', 'records/customer', ['values' => $values + [
            'name' => $name, 'plan' => 'care', 'owner' => 'jonas.pike',
        ]])['record']['id'];
        [$kept, $gone] = [$make("{$mark} Works", ['email' => 'one@twin.example']), $make("{$mark} Worx", ['phone' => '+49 30 5550 9'])];
        $ticket = $this->api('POST', 'records/ticket', ['values' => [
            'subject' => $mark, 'customer' => $gone, 'status' => 'open', 'priority' => 'low', 'owner' => 'lena.abara',
        ]])['record'];
        $this->open("/records/customer/{$kept}");
        $this->see('[aria-label^="Merge this"]')->click();
        $this->see('dialog .boxed')->click();
        $this->see('.floating input')->sendKeys("{$mark} Worx");
        $this->see('.floating [role=option]', "{$mark} Worx")->click();
        // What only the other says is taken over by itself.
        $this->until(fn (): bool => $this->browser->executeScript(
            'return document.querySelectorAll("[name=merge-phone]")[1]?.checked',
        ) === true, 'for what only the other says to be taken over');
        $this->press('Merge', 'dialog button');
        $this->notSee('dialog[open]');
        $this->see('[data-field=phone]', '+49 30 5550 9');
        $this->see('[data-field=email]', 'one@twin.example');
        $this->see('.leaf.right', "{$mark} Worx, into it");
        $this->press('Related', '.segments button');
        $this->see('[aria-label=Tickets] a', $ticket['number']);
    }
}
