<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use VividLedger\Import\CellReader;
use VividLedger\Import\ColumnGuess;
use VividLedger\Import\Convention;
use VividLedger\Import\FileForm;
use VividLedger\Import\Lookup;
use VividLedger\Record\InvalidValue;
use VividLedger\Schema\Choice;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;

/** Tables of other programs: how they are written, what their columns are for, and what their cells say. */
final class ImportTest extends TestCase
{
    /** @return iterable<string, array{string, ?string, string}> */
    public static function files(): iterable
    {
        $rows = "Name;Ort\r\nSkyrø;Bergen, Nord\r\nMüßig;Köln\r\n";
        yield 'semicolons in UTF-8' => [$rows, 'UTF-8', ';'];
        yield 'with a mark' => ["\xEF\xBB\xBFName,City\nA,B\n", 'UTF-8', ','];
        yield 'in the way of old table programs' => [(string) iconv('UTF-8', 'WINDOWS-1252', $rows), 'WINDOWS-1252', ';'];
        yield 'in sixteen bits' => ["\xFF\xFE".iconv('UTF-8', 'UTF-16LE', "a\tb\n1\t2\n"), 'UTF-16LE', "\t"];
        yield 'bars' => ["a|b|c\n1|2|3\n4|5|6\n", 'UTF-8', '|'];
        yield 'one column' => ["Name\nA\nB\n", 'UTF-8', ','];
        yield 'commas within quotes' => ["a;b\n\"x,y,z,w\";1\n\"p,q\";2\n", 'UTF-8', ';'];
        yield 'a sign that stands in cells alone' => ["a,b,c\n1,\"x;y;z\nw;v\",2\n3,4,5\n", 'UTF-8', ','];
        yield 'empty lines first and between' => ["\n\na;b\n\n1;2,5\n\n3;4,5\n", 'UTF-8', ';'];
        yield 'as it says itself' => ["sep=;\r\na;b\r\n\"x,y\";2\r\n", 'UTF-8', ';'];
        yield 'a title above it' => ["Customers of Larkmoss, 2026\n\nName;City\nA;B\nC;D\n", 'UTF-8', ';'];
        yield 'a title with cells behind it' => ["Customers,,\nName,City,Plan\nA,B,C\nD,E,F\n", 'UTF-8', ','];
        yield 'returns alone' => ["a;b\r1;2\r3;4\r", 'UTF-8', ';'];
        yield 'a letter cut in two' => [substr("a,b\n1,é", 0, -1), 'UTF-8', ','];
        yield 'a picture' => ["\x89PNG\r\n\x1A\n\0\0\0\rIHDR", null, ''];
        yield 'a program' => ["\x7FELF\x02\x01\x01", null, ''];
    }

    #[DataProvider('files')]
    public function test_how_a_file_is_written_is_found_out(string $bytes, ?string $encoding, string $delimiter): void
    {
        $form = FileForm::of($bytes);
        self::assertSame([$encoding, $delimiter], [$form?->encoding, $form->delimiter ?? '']);
    }

    public function test_where_the_names_of_the_columns_stand_is_found_out(): void
    {
        $above = static fn (string $bytes): ?int => FileForm::of($bytes)?->above;
        self::assertSame([1, 1, 1, 2, 0, 0], [
            $above("sep=;\na;b\n1;2\n"), $above("Customers of Larkmoss, 2026\n\nName;City\nA;B\nC;D\n"),
            $above("Customers,,\nName,City,Plan\nA,B,C\nD,E,F\n"), $above("A title\nAnd one more\nName;City\nA;B\nC;D\n"),
            $above("Name\nA\nB\n"), $above("Name;City\nA;B\n"),
        ]);
        self::assertTrue(FileForm::of("a;b\r1;2\r")?->endsWithReturns);
    }

    /** @return iterable<string, array{string, string, string|bool|int|null, list<string>}> */
    public static function cells(): iterable
    {
        yield 'a plain number' => ['amount', '1234.5', '1234.50', []];
        yield 'with a comma for thousands' => ['amount', '1,234.50', '1234.50', ['1,234.50']];
        yield 'as in German' => ['amount', '1.234,50 €', '1234.50', ['1.234,50 €', '12,30']];
        yield 'a thousand in a column of commas' => ['amount', '1.234', '1234.00', ['0,50', '1.234']];
        yield 'owed' => ['amount', '(12.50)', '-12.50', ['(12.50)']];
        yield 'with its currency' => ['amount', 'EUR 12.50', '12.50', []];
        yield 'a date of the standard' => ['due', '2026-11-24', '2026-11-24', []];
        yield 'of a table program' => ['due', '2026-11-24T00:00:00', '2026-11-24', []];
        yield 'with a time that nobody asked for' => ['due', '2026-11-24T14:30:00.000Z', '2026-11-24', []];
        yield 'the day first' => ['due', '3/4/2026', '2026-04-03', ['24/11/2026']];
        yield 'the month first' => ['due', '3/4/2026', '2026-03-04', ['11/24/2026']];
        yield 'with points' => ['due', '24.11.26', '2026-11-24', []];
        yield 'in words' => ['due', '24 Nov 2026', '2026-11-24', []];
        yield 'in other words' => ['due', 'March 3rd, 2026', '2026-03-03', []];
        yield 'in German words' => ['due', '3. März 2026', '2026-03-03', []];
        yield 'a moment of the company' => ['at', '24.11.2026 09:30', '2026-11-24T08:30:00Z', []];
        yield 'a moment of the world' => ['at', '2026-11-24T09:30:00+02:00', '2026-11-24T07:30:00Z', []];
        yield 'ticked' => ['vip', 'X', true, []];
        yield 'not ticked' => ['vip', '', false, []];
        yield 'a choice by its label' => ['plan', 'full care', 'full_care', []];
        yield 'a choice by its code' => ['plan', 'BASIC', 'basic', []];
        yield 'several' => ['plans', 'Basic; Full care', 'basic,full_care', []];
        yield 'words' => ['marks', 'Watch, hotel', 'hotel,watch', []];
        yield 'somebody' => ['owner', 'Ines Okafor', 7, []];
        yield 'a record' => ['customer', 'Quayside Clinic', 3, []];
        yield 'right to left' => ['name', ' مرحبا ', 'مرحبا', []];
        yield 'an emoji' => ['name', '🌿', '🌿', []];
    }

    /** @param  list<string>  $others */
    #[DataProvider('cells')]
    public function test_a_cell_says_what_people_mean(string $field, string $cell, string|bool|int|null $value, array $others): void
    {
        self::assertSame($value, $this->reader()->read($this->type()->fields[$field], $cell, Convention::of([...$others, $cell])));
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function wrong(): iterable
    {
        yield 'no number' => ['amount', 'much', 'Amount: ‘much’ is no number.'];
        yield 'no day' => ['due', '31.02.2026', 'Due: ‘31.02.2026’ is no date.'];
        yield 'no choice' => ['plan', 'Gold', 'Plan: there is no ‘Gold’; there are Basic, Full care.'];
        yield 'nobody' => ['owner', 'Nobody Here', 'Owner: nobody at work here is called ‘Nobody Here’.'];
        yield 'no record' => ['customer', 'Nowhere', 'Customer: there is no ‘Nowhere’.'];
        yield 'two records' => ['customer', 'Twins', 'Customer: more than one is called ‘Twins’. Give its number.'];
        yield 'neither' => ['vip', 'perhaps', 'VIP: ‘perhaps’ is neither yes nor no.'];
        yield 'a long word' => ['name', str_repeat('x', 4000), 'Name takes at most 255 characters; this has 4000.'];
    }

    #[DataProvider('wrong')]
    public function test_a_cell_that_says_nothing_is_told_in_a_sentence(string $field, string $cell, string $said): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($said);
        $this->reader()->read($this->type()->fields[$field], $cell, new Convention);
    }

    /** Whatever day and number it is, in whichever way of writing: it is read as what it was. */
    public function test_days_and_numbers_come_back_in_every_way_of_writing_them(): void
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(17));
        $fields = $this->type()->fields;
        for ($round = 0; $round < 400; $round++) {
            $day = (new \DateTimeImmutable('2000-01-01'))->modify('+'.$random->getInt(0, 15_000).' days');
            foreach (['Y-m-d', 'd.m.Y', 'j.n.Y', 'd/m/Y', 'm/d/Y', 'j M Y', 'F j, Y', 'd-M-Y'] as $format) {
                // Somewhere in the column a day is beyond the twelfth.
                $convention = Convention::of([$day->format($format), (new \DateTimeImmutable('2026-11-24'))->format($format)]);
                self::assertSame($day->format('Y-m-d'), $this->reader()->read($fields['due'], $day->format($format), $convention), $format);
            }
            $number = $random->getInt(-9_999_999, 9_999_999) / 100;
            foreach ([['.', ','], [',', '.'], [',', ' '], ['.', '']] as [$point, $thousands]) {
                $written = number_format($number, 2, $point, $thousands);
                self::assertSame(number_format($number, 2, '.', ''), $this->reader()->read(
                    $fields['amount'], $written, Convention::of([$written]),
                ), $written);
            }
        }
    }

    public function test_columns_find_their_fields_by_name_and_by_what_stands_in_them(): void
    {
        $guess = new ColumnGuess($this->type(), $this->reader());
        self::assertSame(
            ['name', 'amount', null, 'due', 'customer', 'number', 'owner', null],
            $guess->fields(
                ['NAME', 'Amount', 'Shoe size', 'due', 'Customer name', 'No.', 'Owner', ''],
                [['A'], ['1.50'], ['44'], ['2026-01-02'], ['Quayside Clinic'], ['X-0001'], ['Ines Okafor'], ['x']],
            ),
        );
        self::assertSame(
            ['name', 'amount'], $guess->fields(['Company', 'Amount'], [['Quayside Clinic'], ['2']]), 'as people call it',
        );
        $isChoice = static fn (Field $field): bool => $field->type === FieldType::Choice;
        $choice = array_values(array_filter($this->type()->fields, $isChoice))[0];
        $label = $choice->choices[0]->label;
        self::assertSame([$choice->name], $guess->fields(['Zustand'], [[$label, $label, 'Lost']]), 'by what stands in it');
        self::assertSame([null], $guess->fields(['Zustand'], [[$label, 'Lost', 'Gone']]), 'unless little of it fits');
        self::assertSame(
            [null, 'due'], $guess->fields(['Due', 'Due'], [['whenever'], ['2026-11-24']]), 'of two of a name the one that can be read',
        );
    }

    private function reader(): CellReader
    {
        return new CellReader(new class implements Lookup
        {
            public function person(string $said): ?int
            {
                return $said === 'Ines Okafor' ? 7 : null;
            }

            public function records(string $type, string $said): array
            {
                return ['Quayside Clinic' => [3], 'Twins' => [4, 5]][$said] ?? [];
            }
        }, new \DateTimeZone('Europe/Berlin'));
    }

    private function type(): RecordType
    {
        $plans = [new Choice('basic', 'Basic', null), new Choice('full_care', 'Full care', null)];

        return new RecordType('thing', 'Thing', 'Things', 'X', 'name', 'owner', [
            new Field('name', 'Name', FieldType::Text), new Field('amount', 'Amount', FieldType::Money, currency: 'EUR'),
            new Field('due', 'Due', FieldType::Date), new Field('at', 'At', FieldType::DateTime),
            new Field('vip', 'VIP', FieldType::Tick), new Field('plan', 'Plan', FieldType::Choice, choices: $plans),
            new Field('plans', 'Plans', FieldType::Choices, choices: $plans), new Field('marks', 'Marks', FieldType::Tags),
            new Field('owner', 'Owner', FieldType::Person), new Field('customer', 'Customer', FieldType::Reference, target: 'customer'),
        ]);
    }
}
