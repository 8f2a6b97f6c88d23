<?php

declare(strict_types=1);

namespace VividLedger\Import;

use VividLedger\Record\InvalidValue;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;

/** Which field each column of a table is for: by what it is called, and by what stands in it. */
final readonly class ColumnGuess
{
    /** The number by which people call a record. */
    public const NUMBER = 'number';

    private const NUMBER_SAID = ['no', 'no.', 'number', 'id', 'nr', 'nr.', 'nummer'];

    /** What people call a column of a sort, in English and in German, by the type of its field. */
    private const CALLED = [
        'phone' => ['telephone', 'telefon', 'tel', 'phone number', 'telephone number', 'telefonnummer', 'mobile', 'mobil', 'handy', 'cell'],
        'email' => ['mail', 'e mail', 'email address', 'e mail address', 'mailadresse', 'e mail adresse'],
        'link' => ['web', 'website', 'url', 'homepage', 'web site', 'internet'],
    ];

    /** And what they call whatever a record is about: its title. */
    private const TITLES = [
        'name', 'company', 'company name', 'firma', 'firmenname', 'organisation', 'organization', 'account', 'title', 'titel', 'subject',
        'betreff',
    ];

    /** What stands in a column tells of these what it is. */
    private const PLAIN = [FieldType::Choice, FieldType::Email];

    /** So many of its cells have to say so. */
    private const MOSTLY = 0.5;

    /** So alike a name has to be, of 100. */
    private const ALIKE = 78.0;

    public function __construct(private RecordType $type, private CellReader $reader)
    {
    }

    /**
     * @param  list<string>  $heads
     * @param  list<list<string>>  $columns  some cells of each
     * @return list<?string> for each column a field's name, "number", or null where nothing fits; no field twice
     */
    public function fields(array $heads, array $columns): array
    {
        $scores = [];
        foreach ($heads as $place => $head) {
            $cells = array_values(array_filter($columns[$place] ?? [], static fn (string $cell): bool => trim($cell) !== ''));
            foreach ($this->candidates() as $name => $field) {
                $score = $this->score($head, $cells, $name, $field);
                if ($score > 0) {
                    $scores[] = [$score, $place, $name];
                }
            }
        }
        // The surest first; what is taken is taken.
        usort($scores, static fn (array $one, array $other): int => [$other[0], $one[1]] <=> [$one[0], $other[1]]);
        $found = array_fill(0, count($heads), null);
        $taken = [];
        foreach ($scores as [, $place, $name]) {
            if ($found[$place] === null && ! isset($taken[$name])) {
                $found[$place] = $name;
                $taken[$name] = true;
            }
        }

        return $found;
    }

    /** @return array<string, ?Field> */
    private function candidates(): array
    {
        $fields = array_filter($this->type->fields, static fn (Field $field): bool => $field->isSettable());

        return [self::NUMBER => null, ...$fields];
    }

    /** @param  list<string>  $cells  without the empty ones */
    private function score(string $head, array $cells, string $name, ?Field $field): float
    {
        $said = self::folded($head);
        if ($said === '') {
            return 0;
        }
        if ($field === null) {
            $isNumber = $cells !== [] && array_filter($cells, fn (string $cell): bool => $this->type->idOf($cell) === null) === [];

            return $isNumber ? 150 : (in_array($said, self::NUMBER_SAID, true) && $cells === [] ? 100 : 0);
        }
        $alike = 0.0;
        foreach ([$field->label, $name] as $called) {
            similar_text($said, self::folded($called), $percent);
            $alike = max($alike, $percent);
        }
        // "Customer name" is the customer, unless something is called just so.
        if (preg_match('/^(.+) (name|title|number|no)$/', $said, $part) === 1 && $part[1] === self::folded($field->label)
            && $field->type === FieldType::Reference) {
            $alike = max($alike, 95.0);
        }
        // Only where nothing is called so itself: a name that is alike comes first.
        if (in_array($said, self::CALLED[$field->type->value] ?? [], true)
            || ($name === $this->type->title && in_array($said, [...self::TITLES, self::folded($this->type->label)], true))) {
            $alike = max($alike, 90.0);
        }
        $reads = $this->share($field, $cells);

        if ($alike < self::ALIKE) {
            // By another name it is known by what stands in it, where that is plain.
            return $cells !== [] && in_array($field->type, self::PLAIN, true) && $reads >= self::MOSTLY ? 60 * $reads : 0;
        }

        return $alike + 20 * $reads;
    }

    /**
     * How many of the cells can be read for a field, from 0 to 1.
     *
     * @param  list<string>  $cells
     */
    private function share(Field $field, array $cells): float
    {
        $convention = Convention::of($cells);
        $read = 0;
        foreach ($cells as $cell) {
            try {
                $this->reader->read($field, $cell, $convention);
                $read++;
            } catch (InvalidValue) {
            }
        }

        return $cells === [] ? 0.5 : $read / count($cells);
    }

    private static function folded(string $name): string
    {
        return trim((string) preg_replace('/[^\p{L}\p{N}]+/u', ' ', mb_strtolower($name)));
    }
}
