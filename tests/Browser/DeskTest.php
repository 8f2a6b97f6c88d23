<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Tests\Browser\Support\BrowserTestCase;

/** The desk: lists as people arrange them, many records changed at once, and files that become records. */
final class DeskTest extends BrowserTestCase
{
    public function test_a_view_with_groups_is_kept_and_a_selection_changed_stopped_and_taken_back(): void
    {
        $this->signIn('ines.okafor');
        $mark = 'Hall '.bin2hex(random_bytes(3));
        $values = ['customer' => 1, 'owner' => 'ines.okafor', 'amount' => '2'];
        foreach (array_chunk(range(1, 420), 200) as $some) {
            $this->api('POST', 'records/quote/several', ['records' => array_map(static fn (int $n): array => [
                'values' => ['subject' => "{$mark} {$n}", 'stage' => $n % 3 === 0 ? 'sent' : 'draft'] + $values,
            ], $some)]);
        }
        $this->open('/records/quote?search='.rawurlencode($mark));
        $this->see('table.ledger tbody tr', $mark);
        $this->press('Columns');
        $this->see('[aria-label="Add a column"]')->sendKeys('customer plan');
        $this->see('.floating .option', 'Customer › Plan')->click();
        $this->see('th', 'Customer › Plan');
        $this->see('body')->sendKeys("\u{E00C}");
        $this->press('Group');
        $this->see('.floating [role=option]', 'Stage')->click();
        $this->see('.group-head', 'Draft');
        $this->see('.group-head', '280');
        $this->see('.group-head', '140');
        // By keys to the last draft that is shown, and on into the next group.
        $this->until(fn (): bool => count($this->browser->findElements(WebDriverBy::cssSelector('tr[data-index]'))) === 20,
            'for both groups');
        $this->browser->executeScript('document.activeElement.blur()');
        $this->see('body')->sendKeys(str_repeat("\u{E015}", 11));
        $this->see('.leaf.right dl', 'Sent');
        $this->press('by Stage');
        $this->see('.floating [role=option]', 'Amount a year')->click();
        $this->see('.group-head', '€ 560.00');
        $this->press('+ view');
        $this->see('dialog input')->sendKeys("{$mark} by stage");
        $this->press('Save');
        $this->see('[role=tab][aria-selected=true]', "{$mark} by stage");
        $this->browser->navigate()->refresh();
        $this->see('.group-head', '€ 560.00');
        $this->see('th', 'Customer › Plan');

        // All that fit are changed; somebody stops it, goes on with it, and takes it back.
        $this->see('input[aria-label="Choose all on this page"]')->click();
        $this->press('all 420 that fit');
        $this->press('Change…');
        $this->see('.floating [role=option]', 'Discount class')->click();
        $this->see('.floating [role=option]', 'Plain')->click();
        $this->see('dialog', 'Tried on paper on the first 300 quotes of 420');
        $this->see('[data-effect]', 'No rule would fire.');
        $this->press('Change 420 quotes');
        $this->press('Stop', 'dialog button');
        $this->see('[data-progress=stopped]');
        $this->press('Go on', 'dialog button');
        $this->see('[data-progress=done]', '420 of 420 quotes saved');
        $plain = fn (): int => (int) $this->api('GET', 'records/quote?search='.rawurlencode($mark).'&perPage=1&filter='.rawurlencode(
            (string) json_encode(['kind' => 'is', 'field' => 'discount_class', 'value' => 'plain']),
        ))['total'];
        self::assertSame(420, $plain());
        $this->press('Undo', 'dialog button');
        $this->see('[data-progress=undone]', '420 of 420 taken back.');
        self::assertSame(0, $plain());
        $this->press('Close', 'dialog button');
    }

    public function test_a_card_is_carried_to_another_stage_and_a_cell_changed_in_its_place(): void
    {
        $this->signIn('ines.okafor');
        $mark = 'Board '.bin2hex(random_bytes(3));
        $this->api('POST', 'records/ticket', ['values' => [
            'subject' => $mark, 'customer' => 1, 'status' => 'open', 'priority' => 'low', 'owner' => 'ines.okafor',
        ]]);
        $this->open('/records/ticket?search='.rawurlencode($mark));
        $this->see('table.ledger tbody tr', $mark);
        $this->see('body')->sendKeys('e');
        $this->see('.floating [role=option]', 'Priority')->click();
        $this->see('.floating [role=option]', 'High')->click();
        $this->see('[role=status]', 'Priority is High.');
        $this->see('tr.on', 'High');
        $this->press('Board');
        $this->see('.board-card', $mark);
        $this->browser->executeScript("document.querySelector('.board-card').focus()");
        $this->browser->getKeyboard()->sendKeys(["\u{E00A}", "\u{E014}", "\u{E00A}"]);
        $this->see('[role=status]', 'Status is Waiting on customer.');
        $this->see('.board-column[aria-label="Waiting on customer"]', $mark);
        $this->see('.leaf.right dl', 'Waiting on customer');

        $this->press('type one');
        $this->see('[data-typed] textarea')->sendKeys("priority is urgent or status is waiting on customer\n");
        $this->until(fn (): bool => count($this->browser->findElements(
            WebDriverBy::cssSelector('[aria-label="Remove this condition"]'),
        )) === 3, 'for two conditions in a group');
        $this->see('.board-card', $mark);
        $view = $this->api('POST', 'records/ticket/views', ['name' => $mark, 'shared' => 'nobody', 'definition' => [
            'columns' => ['subject', 'status'], 'search' => $mark, 'filter' => ['kind' => 'is', 'field' => 'status', 'value' => 'open'],
        ]])['id'];
        $this->open("/records/ticket?view={$view}");
        $this->see('[data-word^="/filter/of/0/value"]', 'Open');
        $this->see('.empty');
    }

    public function test_what_others_change_is_seen_and_never_overwritten_unseen(): void
    {
        $this->signIn('ines.okafor');
        $ticket = $this->api('POST', 'records/ticket', ['values' => [
            'subject' => 'Two windows', 'customer' => 1, 'status' => 'open', 'priority' => 'low', 'owner' => 'ines.okafor',
        ]])['record'];
        $this->open("/records/ticket/{$ticket['id']}");
        $this->see('h1', 'Two windows');
        $change = fn (string $priority): array => $this->api('PATCH', "records/ticket/{$ticket['id']}", [
            'version' => $this->api('GET', "records/ticket/{$ticket['id']}")['version'], 'values' => ['priority' => $priority],
        ]);
        $change('high');
        $this->see('.leaf.left', 'High');
        $this->see('.leaf.right', 'changed Priority');

        // It shows under the pointer or the focus only.
        $this->browser->executeScript('document.querySelector(`[aria-label="Change Priority"]`).click()');
        $this->see('.floating [role=option]', 'Urgent');
        $change('normal');
        $this->see('.leaf.left', 'Normal');
        $this->see('.floating [role=option]', 'Urgent')->click();
        $this->see('[role=status], [role=alert]', 'changed Priority to');
    }

    public function test_a_file_of_five_thousand_rows_with_three_bad_ones_becomes_records(): void
    {
        $this->signIn('ines.okafor');
        $mark = 'File '.bin2hex(random_bytes(3));
        $lines = ['Subject;Customer;Discount class;Stage;Valid until'];
        for ($n = 1; $n <= 5000; $n++) {
            $lines[] = implode(';', [
                "{$mark} {$n}", $n === 40 ? 'Nobody’s Hotel' : 'Brine & Barrow Hotel', $n === 2000 ? 'Whenever' : 'Plain', 'Lost',
                $n === 4999 ? '31.02.2026' : sprintf('%02d.11.2026', 1 + $n % 28),
            ]);
        }
        $path = sys_get_temp_dir()."/{$mark}.csv";
        file_put_contents($path, (string) iconv('UTF-8', 'WINDOWS-1252', implode("\r\n", $lines)));
        $this->open('/records/quote/import');
        $this->see('h1', 'Import quotes');
        $this->browser->findElement(WebDriverBy::cssSelector('input[type=file]'))->sendKeys($path);
        $this->see('.sub', '5,000 rows, WINDOWS-1252, parted by “;”');
        self::assertSame('valid_until', $this->see('select[aria-label="What “Valid until” becomes"]')->getAttribute('value'));
        $this->press('Try all 5,000 rows');
        $this->see('[data-import=tried]');
        $this->see('.sub', '4,997 new, 0 changed, 0 as they are; 3 rows left out.');
        foreach (['row 41', 'there is no ‘Nobody’s Hotel’', 'row 2001', 'row 5000', '‘31.02.2026’ is no date'] as $said) {
            $this->see('.leaf.right', $said);
        }
        $this->see('.leaf.right label', 'No. They are kept as they are')->click();
        $this->press('Bring in 4,997 rows');
        $this->press('Stop');
        $this->see('[data-import=stopped]');
        $this->press('Go on');
        $this->see('[data-import=done]');
        $this->see('.sub', '4,997 of 5,000 rows saved, 3 left out.');
        self::assertSame(4997, $this->api('GET', 'records/quote?search='.rawurlencode($mark).'&perPage=1')['total']);
        $this->press('Undo');
        $this->see('[data-import=undoing]');
        unlink($path);
    }
}
