<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use Tests\Browser\Support\BrowserTestCase;

/** Everything on a rule page without a mouse; and what an auditor finds. */
final class KeyboardTest extends BrowserTestCase
{
    public function test_a_rule_is_written_by_keyboard_alone(): void
    {
        $this->signIn('ines.okafor');
        $this->keys(Key::CONTROL.'k');
        $this->see('[role=dialog] input');
        $this->keys('Full care goes', Key::ENTER);
        $this->see('[data-word]');
        $this->see('[data-word="/when|choose"]')->sendKeys('');
        $this->browser->executeScript('document.querySelector(\'[data-word="/when|choose"]\').focus()');

        // To the last condition, and its value: from Low and Normal to High alone.
        $this->keys(Key::ARROW_DOWN, Key::ARROW_DOWN, Key::ARROW_DOWN, Key::HOME, Key::ARROW_DOWN, Key::ARROW_DOWN, Key::ARROW_DOWN);
        $this->until(
            fn (): bool => str_starts_with(
                (string) $this->browser->switchTo()->activeElement()->getAttribute('data-word'),
                '/onlyIf/of/1/',
            ),
            'for the second condition',
        );
        while ($this->browser->switchTo()->activeElement()->getAttribute('data-word') !== '/onlyIf/of/1/values|value') {
            $this->keys(Key::ARROW_RIGHT);
        }
        $this->keys(Key::ENTER);
        $this->see('.floating [role=option]', 'Low');
        $this->keys(' ', Key::ARROW_DOWN, Key::ARROW_DOWN, ' ', Key::ENTER);
        $this->notSee('.floating');
        $this->until(fn (): bool => in_array('Priority is one of Normal or High', $this->rows(), true), 'for the new values');
        self::assertSame(
            '/onlyIf/of/1/values|value',
            $this->browser->switchTo()->activeElement()->getAttribute('data-word'),
            'the focus stays on the word',
        );

        // The row goes up, the other one goes away, and both are undone.
        $this->keys(Key::ALT.Key::ARROW_UP);
        $this->until(fn (): bool => $this->rows()[2] === 'Priority is one of Normal or High', 'for the row to move');
        $this->browser->executeScript('document.querySelector(\'[data-word="/onlyIf/of/1/field|choose"]\').focus()');
        $this->keys(Key::DELETE);
        $this->until(fn (): bool => count(preg_grep('/^Customer/', $this->rows()) ?: []) === 0, 'for the row to go');
        $this->keys(Key::CONTROL.'z', Key::CONTROL.'z');
        $this->until(fn (): bool => $this->rows()[2] === 'Customer › Plan is Full care', 'for everything to come back');
        $this->saved();
        $this->see('.stamp', 'Draft, page 2');
        $this->press('More for this rule');
        $this->press('Discard the draft…');
        $this->press('Discard it');
        $this->see('.stamp', 'In force');
        self::assertContains('Priority is one of Low or Normal', $this->rows());
    }

    public function test_a_malformed_file_is_refused_with_its_lines(): void
    {
        $this->signIn('ines.okafor');
        $this->open('/rules');
        $this->press('Import');
        $this->see('dialog textarea')->sendKeys("{\n\"format\": \"vivid-ledger/rule/1\",\n\"name\": 7\n}");
        $this->press('Import as a draft');
        $this->see('dialog [role=alert]', 'Nothing was imported');
        $this->see('dialog [role=alert]', 'line 3');
    }

    public function test_an_auditor_reads_and_changes_nothing(): void
    {
        $this->signIn('odile.march');
        $this->open('/rules');
        $this->see('a.line', 'Urgent ticket, tell the lead')->click();
        $this->see('.line', 'Priority is Urgent');
        $this->notSee('button[data-word]');
        $this->notSee('button', 'More');
        $this->open('/records/ticket');
        $this->see('table.ledger tbody tr');
        $this->notSee('a', 'New ticket');
        $this->open('/setup');
        $this->see('.stamp', 'at work');
        self::assertFalse($this->see('select')->isEnabled());
    }

    public function test_a_wrong_password_is_told_and_nothing_is_lost(): void
    {
        $this->open('/');
        $this->see('#email')->sendKeys('lena.abara@larkmoss.example');
        $this->see('#password')->sendKeys('guess');
        $this->press('Sign in');
        $this->see('[role=alert]', 'do not belong together');
        self::assertSame('lena.abara@larkmoss.example', $this->see('#email')->getAttribute('value'));
    }
}
