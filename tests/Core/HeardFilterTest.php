<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\Condition\Given\GivenStart;
use VividLedger\House\Person;
use VividLedger\Listing\HeardFilter;
use VividLedger\Listing\RecordNames;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Text\RuleText;

/** What people type above a list means what they would say in a whole sentence, or nothing. */
final class HeardFilterTest extends TestCase
{
    private const MEANT = [
        'owner is me' => 'Owner is %me', 'my tickets' => 'Owner is %me', 'mine' => 'Owner is %me',
        'owned by me' => 'Owner is %me', 'assigned to me and urgent' => 'Owner is %me and Priority is Urgent',
        'my urgent tickets' => 'Owner is %me and Priority is Urgent', 'unassigned' => 'Owner is empty',
        'unassigned, urgent' => 'Owner is empty and Priority is Urgent', 'open tickets' => 'Status is Open',
        '%first' => 'Owner is %me', 'of %first' => 'Owner is %me', 'late' => 'Due is before today',
        'due this week' => 'Due is on or after the start of this week and Due is before the start of next week',
        'due next month' => 'Due is on or after the start of next month and Due is before the start of the month after next',
        'created last year' => 'Created is on or after the start of last year and Created is before the start of this year',
        'this week' => 'Due is on or after the start of this week and Due is before the start of next week',
        'subject contains leak' => 'Subject contains “leak”', 'subject mentions leak and urgent' => 'Subject contains '
            .'“leak” and Priority is Urgent',
        'older than 30 days' => 'Created is before 30 days ago', 'no activity for 2 weeks' => 'Last changed is before 2 '
            .'weeks ago',
        'Larch Offices' => 'Customer is C-0007', 'for larch offices' => 'Customer is C-0007',
        'customer: Larch Offices' => 'Customer is C-0007',
        'open and Larch Offices' => 'Status is Open and Customer is C-0007',
    ];

    public function test_it_is_said_as_people_say_it(): void
    {
        $me = (new World)->peopleAtWork()[0];
        $names = ['%me' => $me->name, '%first' => explode(' ', $me->name)[0]];
        foreach (self::MEANT as $typed => $printed) {
            $read = $this->heard($me)->read(strtr($typed, $names));
            self::assertNotNull($read->file, $typed.' '.json_encode([$read->misread, $read->readings]));
            $heard = $this->text()->printPart($read->file, 'onlyIf', World::schema()->types['ticket']);
            self::assertSame(strtr($printed, $names), $heard, $typed);
        }
    }

    public function test_what_could_be_several_is_asked_and_what_is_none_refused(): void
    {
        $me = (new World)->peopleAtWork()[0];
        self::assertCount(2, $this->heard($me)->read('Larch')->readings);
        foreach (['leak', 'my zebra', 'urgent and zebra', 'due this fortnight', 'for nobody known'] as $typed) {
            $read = $this->heard($me)->read($typed);
            self::assertNull($read->file, $typed);
            self::assertNotSame([], $read->misread, $typed);
        }
        // However much nonsense it is, few readings are tried.
        self::assertNull($this->heard($me)->read(str_repeat('my open with x and y of z ', 40))->file);
    }

    public function test_a_period_begins_at_midnight_of_its_first_day(): void
    {
        $zone = new \DateTimeZone('Europe/Berlin');
        $field = new Field('due', 'Due', FieldType::Date);
        foreach (['2026-03-29 01:30', '2026-01-01 00:00', '2025-12-31 23:59', '2026-10-25 02:30', '2024-02-29 12:00'] as $now) {
            $now = new \DateTimeImmutable($now, $zone);
            $of = fn (string $period): string => (new GivenStart($period, $zone))->at($now, $field);
            foreach (['week', 'month', 'year'] as $unit) {
                $starts = array_map($of, ["last_{$unit}", "this_{$unit}", "next_{$unit}", "{$unit}_after_next"]);
                $sorted = $starts;
                sort($sorted);
                self::assertSame($sorted, array_values(array_unique($starts)));
                self::assertLessThanOrEqual($now->format('Y-m-d'), $starts[1]);
                self::assertGreaterThan($now->format('Y-m-d'), $starts[2]);
            }
            self::assertSame('1', (new \DateTimeImmutable($of('this_week')))->format('N'));
            self::assertSame('01-01', substr($of('year_after_next'), 5));
        }
    }

    private function heard(Person $me): HeardFilter
    {
        $records = new class implements RecordNames
        {
            public function called(string $type, string $name): array
            {
                return match (true) {
                    $type !== 'customer' => [],
                    mb_strtolower($name) === 'larch offices' => ['C-0007'],
                    mb_strtolower($name) === 'larch' => ['C-0007', 'C-0008'],
                    default => [],
                };
            }
        };

        return new HeardFilter($this->text(), World::schema()->types['ticket'], $me, (new World)->peopleAtWork(), $records);
    }

    private function text(): RuleText
    {
        return new RuleText(World::schema(), new World, new \DateTimeZone('Europe/Berlin'));
    }
}
