<?php

declare(strict_types=1);

namespace Tests\Browser;

use Tests\Browser\Support\BrowserTestCase;

/** Somebody makes a record type with a stage and a date, writes down a first one, and retires what is not needed after all. */
final class TypeTest extends BrowserTestCase
{
    public function test_a_type_of_ones_own_with_fields_and_a_first_record(): void
    {
        $mark = bin2hex(random_bytes(3));
        $this->signIn('ines.okafor');
        $this->open('/setup');
        $this->see('a.card', 'Records and fields')->click();
        $this->press('New record type');
        $this->see('form label input')->sendKeys("Loan {$mark}");
        $this->see('form label:nth-of-type(2) input')->sendKeys("Loans {$mark}");
        $this->press('Create it');
        $this->see('[role=status]', 'Add what they need.');
        $this->press('Add a field');
        $this->see('form input')->sendKeys('Stage');
        $this->see('form select')->sendKeys('Choice');
        $this->see('[aria-label="Choice 1"]')->sendKeys('Lent');
        $this->press('+ a choice');
        $this->see('[aria-label="Choice 2"]')->sendKeys('lent');
        $this->press('Add the field');
        $this->see('[role=alert]', 'There is a choice of that name already.');
        $this->see('[aria-label="Choice 2"]')->clear()->sendKeys('Given back');
        $this->press('Add the field');
        $this->see('[data-field=stage]', 'Choice');
        $this->press('Add a field', '.leaf.left button');
        $this->see('form input')->sendKeys('Back by');
        $this->see('form select')->sendKeys('Date:');
        $this->see('form label input[maxlength="300"]')->sendKeys('As was agreed');
        $this->press('Add the field');
        $this->see('[data-field=back_by]', 'Date');
        $this->see('[aria-label="Back by in lists"]')->click();
        $this->see('[aria-label="Back by higher"]')->click();
        $this->until(fn (): bool => $this->order() === ['name', 'owner', 'notes', 'back_by', 'stage'], 'for the new order');

        $type = "loan_{$mark}";
        $this->open("/records/{$type}/new");
        $this->see('form', 'As was agreed');
        $this->see('#field-name')->sendKeys('Two ladders');
        $this->see('#field-stage')->sendKeys('Lent');
        $this->press('Save');
        $this->see('h1', 'Two ladders');
        $this->open("/records/{$type}");
        $this->see('table.ledger th', 'Back by');
        $this->see('table.ledger tbody tr', 'Two ladders');
        $this->open('/setup/types');
        $this->press("Loans {$mark}", '[role=tab]');
        $this->press('Back by', '[data-field=back_by] button');
        $this->press('Retire it');
        $this->see('[role=status]', 'Back by is retired.');
        $this->notSee('[data-field=back_by]');
        $this->press('Bring it back');
        $this->see('[data-field=back_by]');
    }

    /** @return list<string> */
    private function order(): array
    {
        return $this->browser->executeScript('return [...document.querySelectorAll("[data-field]")].map((row) => row.dataset.field)');
    }
}
