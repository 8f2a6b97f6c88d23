<?php

declare(strict_types=1);

namespace Tests\App\Ledger;

use Tests\App\Support\AppTestCase;

/** The ledger is narrowed to what somebody looks for, and taken out as a file that holds the same. */
final class LedgerAskedTest extends AppTestCase
{
    public function test_by_person_record_rule_and_day_alone_and_together_and_as_a_file(): void
    {
        $rule = $this->inForce($this->demoFile('010-urgent-ticket'));
        $customer = $this->customer()['id'];
        $this->clockAt('2026-11-25T22:30:00Z');
        $late = $this->ticket(['subject' => '=SUM(A1), "odd"', 'customer' => $customer, 'priority' => 'urgent'])['record'];
        // Half past eleven in Berlin was still that day; an hour later it is the next.
        $this->clockAt('2026-11-25T23:30:00Z');
        $next = $this->ticket(['subject' => 'Plain', 'customer' => $customer])['record'];
        $this->change($next, ['subject' => 'Plainer'], 'lena.abara');
        $found = fn (string $query): array => array_map(
            static fn (array $entry): string => "{$entry['kind']} {$entry['recordNumber']}",
            $this->as('ines.okafor', 'GET', "ledger?{$query}")->assertOk()->json('entries'),
        );
        [$first, $second] = [$late['number'], $next['number']];
        self::assertSame(["changed {$second}"], $found('person=lena.abara'));
        self::assertSame(["fired {$first}"], $found('outcome=done'));
        self::assertSame([], $found('outcome=failed'));
        $this->as('ines.okafor', 'GET', 'ledger?outcome=lucky')->assertStatus(422);
        self::assertSame(["fired {$first}"], $found("rule={$rule}&show=rules&record={$first}"));
        self::assertSame(["fired {$first}", "created {$first}"], $found('from=2026-11-25&until=2026-11-25'));
        self::assertSame(["changed {$second}", "created {$second}"], $found('from=2026-11-26'));
        self::assertSame(["created {$second}"], $found("from=2026-11-26&record={$second}&person={$this->person('bram.castellan')->id}"));
        self::assertSame([], $found("record={$first}&person=lena.abara"));
        foreach (['person=nobody' => '/person', 'record=T' => '/record'] as $query => $at) {
            $answer = $this->as('ines.okafor', 'GET', "ledger?{$query}");
            $this->assertRefused($answer, 422, 'unknown_value', $at);
        }
        $this->as('ines.okafor', 'GET', 'ledger?from=yesterday')->assertStatus(422);

        $lines = explode("\r\n",
            trim((string) $this->as('ines.okafor', 'GET', "ledger/file?record={$first}")->assertOk()->streamedContent()));
        self::assertCount(3, $lines);
        self::assertStringStartsWith("\u{FEFF}Number,At,Who,What,Record,Rule", $lines[0]);
        self::assertSame('Urgent ticket, tell the lead', str_getcsv($lines[1])[5]);
        foreach (str_getcsv($lines[2]) as $cell) {
            self::assertDoesNotMatchRegularExpression('/^[=+@-]/', $cell);
        }
        $records = (string) $this->as('ines.okafor', 'GET', 'records/ticket/file?search=odd')->assertOk()->streamedContent();
        self::assertStringContainsString('"\'=SUM(A1), ""odd"""', $records);
        self::assertSame('exported', $this->as('ines.okafor', 'GET', 'ledger')->json('entries.0.kind'));
        $this->as('odile.march', 'GET', 'ledger/file')->assertOk();
    }

    public function test_a_file_of_more_than_a_page_is_whole(): void
    {
        $customer = $this->customer();
        for ($time = 1; $time <= 120; $time++) {
            $customer = $this->change($customer, ['name' => "Nr {$time}"])['record'];
        }
        $text = (string) $this->as('ines.okafor', 'GET', "ledger/file?record={$customer['number']}")->assertOk()->streamedContent();
        $numbers = array_map(static fn (string $line): int => (int) explode(',', $line)[0], array_slice(explode("\r\n", trim($text)), 1));
        self::assertCount(121, array_unique($numbers));
        self::assertSame($numbers, array_reverse(array_values(array_unique([...array_reverse($numbers)]))));
    }
}
