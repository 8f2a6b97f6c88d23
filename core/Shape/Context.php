<?php

declare(strict_types=1);

namespace VividLedger\Shape;

use Closure;
use VividLedger\House\Directory;
use VividLedger\Record\Display;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;
use VividLedger\Words\Words;

/**
 * What one reading of a rule works with, seen from one record type. Reading a part and wording it happen in one pass, so
 * that a half-written rule still reads as a sentence with gaps.
 */
final readonly class Context
{
    public Display $display;

    public ReadingResult $sheet;

    public function __construct(
        public Schema $schema,
        public Directory $directory,
        public RecordType $type,
        public \DateTimeZone $zone,
        ?ReadingResult $sheet = null,
        public ?Field $field = null,
        public ?RecordType $of = null,
    ) {
        $this->display = new Display($directory, $zone);
        $this->sheet = $sheet ?? new ReadingResult;
    }

    /** The same reading, at a place that is about a field of a record type: what it is set to. */
    public function at(Field $field, RecordType $of): self
    {
        return new self(
            schema: $this->schema, directory: $this->directory, type: $this->type, zone: $this->zone, sheet: $this->sheet, field: $field,
            of: $of,
        );
    }

    /** The field at hand, at a place that is about one. */
    public function field(): Field
    {
        return $this->field ?? throw new \LogicException('This place is not about a field.');
    }

    /** The same reading, seen from another record type. */
    public function about(RecordType $type): self
    {
        return new self($this->schema, $this->directory, $type, $this->zone, $this->sheet);
    }

    /** What is looked up in, for printing; what was looked up once is known for the whole reading. */
    public function scope(?Field $field = null): Scope
    {
        return new Scope(
            schema: $this->schema, directory: $this->directory, type: $this->type, zone: $this->zone, known: $this->sheet->known,
            field: $field ?? $this->field,
        );
    }

    /** How a shape says what stands in a file; empty where it has no words for it. */
    public function said(Slot $slot, mixed $json, ?Field $field = null): string
    {
        return $slot->print($json, $this->scope($field), []) ?? '';
    }

    public function row(Part $part, Node $node, string $margin = '', int $depth = 0): Row
    {
        return $this->sheet->rows[] = new Row($part, $node->at, $margin, $depth, $this->sheet->indent);
    }

    public function glue(string $text): void
    {
        $this->add(new Word($text));
    }

    public function word(string $text, WordRole $role, string $at, ?Editor $editor): void
    {
        $this->add(new Word($text, $role, $at, $editor, $this->type->name));
    }

    /**
     * A word that is changed by choosing from a list.
     *
     * @param  Closure(): list<Offer>  $offers  asked only when somebody wants to choose
     */
    public function choice(string $text, WordRole $role, string $at, Closure $offers, string $label = 'Choose'): void
    {
        $this->word($text, $role, $at, Editor::choose($label, $offers));
    }

    /** The time of a line, which stands beside its row. */
    public function when(Row $row, string $text, string $at, Editor $editor): void
    {
        $row->when = new Word($text, WordRole::Value, $at, $editor, $this->type->name);
        $this->sheet->offer($row->when);
    }

    /** A word in a row that others have been begun behind. */
    public function wordIn(Row $row, string $text, WordRole $role, string $at, Editor $editor): void
    {
        $word = $row->words[] = new Word($text, $role, $at, $editor, $this->type->name);
        $this->sheet->offer($word);
    }

    /** Something that can be added here: "+ notes". It is no part of the sentence. */
    public function more(string $text, string $at, Editor $editor): void
    {
        $this->word($text, WordRole::More, $at, $editor);
    }

    /** A gap in the sentence, with what belongs there and why the rule is not finished without it. */
    public function gap(string $text, string $at, ?Editor $editor, string $code, string $message): null
    {
        $this->word($text, WordRole::Missing, $at, $editor);

        // What a shape says of a gap is written when nobody reads yet.
        return $this->problem($at, $code, Words::say($message));
    }

    public function problem(string $at, string $code, string $message, ?int $position = null): null
    {
        $this->sheet->problems[] = new Problem($at, $code, $message, $position);

        return null;
    }

    /** Whether anything is said in the row at hand yet. */
    public function hasWords(): bool
    {
        $row = end($this->sheet->rows);

        return $row !== false && $row->text() !== '';
    }

    /** How many words the row at hand has: more of them afterwards, where what was read has said itself. */
    public function words(): int
    {
        $row = end($this->sheet->rows);

        return $row === false ? 0 : count($row->words);
    }

    public function problems(): int
    {
        return count($this->sheet->problems);
    }

    private function add(Word $word): void
    {
        $row = end($this->sheet->rows);
        if ($row === false) {
            throw new \LogicException('A word needs a row to stand in.');
        }
        $row->words[] = $word;
        $this->sheet->offer($word);
    }
}
