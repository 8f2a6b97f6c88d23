<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use Tests\Browser\Support\BrowserTestCase;

/** Somebody reads the application in German: screens, dates, problems and what the ledger says. */
final class LanguageTest extends BrowserTestCase
{
    protected function tearDown(): void
    {
        // Whoever signs in next in this database reads English.
        $this->api('PUT', 'language');
        parent::tearDown();
    }

    public function test_a_member_chooses_german_and_works_in_it(): void
    {
        $this->signIn('lena.abara');
        $this->open('/profile');
        $this->see('select[aria-label=Language] option[value=de]')->click();
        $this->see('.spine a', 'Heute');
        self::assertSame('de', $this->browser->executeScript('return document.documentElement.lang'));

        // A day is typed as Germans say it, and what is none is said in German.
        $this->tab('Aufgaben');
        $this->press('Neue Aufgabe');
        $this->see('input[placeholder="Marit anrufen"]')->sendKeys('Blumen gießen');
        $due = $this->see('input[aria-label="Fällig"]');
        $due->sendKeys('gestrn'.WebDriverKeys::TAB);
        $this->see('dialog', '„gestrn“ ist kein Datum');
        $due->clear();
        $due->sendKeys('übermorgn'.WebDriverKeys::TAB);
        $this->see('dialog', '„übermorgn“ ist kein Datum');
        $this->press('Abbrechen');

        $customer = $this->api('POST', 'records/customer', ['values' => ['name' => 'Kranichhof', 'plan' => 'care']])['record'];
        $this->open("/records/customer/{$customer['id']}");
        $this->see('.leaf.right', 'Lena Abara hat ihn angelegt');
        $this->press('Bearbeiten');
        $this->see('[name=yearly_value], [id$=yearly_value]')->sendKeys('viel');
        $this->press('Speichern');
        $this->see('.leaf', 'Yearly value nimmt eine Zahl wie 12,50.');
        // A number as Germans write it, and it is shown so where it is typed anew.
        $this->see('[name=yearly_value], [id$=yearly_value]')->clear()->sendKeys('1.234,5');
        $this->press('Speichern');
        $this->see('.leaf.left', '1.234,50');
        $this->press('Bearbeiten');
        self::assertSame('1234,50', $this->see('[name=yearly_value], [id$=yearly_value]')->getAttribute('value'));
        self::assertSame('1234.50', $this->api('GET', "records/customer/{$customer['id']}")['values']['yearly_value']);

        // At the door the browser’s language is spoken, behind it their own.
        $this->signOut();
        $this->open('/');
        $this->see('#email')->sendKeys('lena.abara@larkmoss.example');
        $this->see('#password')->sendKeys('larkmoss');
        $this->press('Sign in');
        $this->see('.spine a', 'Heute');
    }
}
