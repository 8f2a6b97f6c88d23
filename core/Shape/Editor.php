<?php

declare(strict_types=1);

namespace VividLedger\Shape;

use Closure;
use VividLedger\Schema\Field;

/** How a word is changed in place: which editor opens, and all it has to know. */
final readonly class Editor
{
    /**
     * @param  string  $label  what it is called
     * @param  ?Closure(): list<Offer>  $offers  what can be chosen, asked only when somebody wants to
     * @param  ?Closure(): list<Way>  $ways  the ways to fill in a form, asked likewise
     * @param  bool  $many  whether several are chosen together
     * @param  list<string>  $clears  keys beside the place that say nothing any more once it has changed
     * @param  bool  $isLong  whether a text has several lines
     * @param  bool  $merges  whether fields can be merged into a text
     * @param  bool  $mayBeEmpty  whether nothing is an answer too
     * @param  ?int  $least  of a number
     * @param  ?int  $most  of a number, or characters of a text
     * @param  bool  $isWhole  whether a number is kept as one, and not as text
     * @param  ?string  $type  name of the record type whose field gives the values; null where they are plain numbers
     * @param  ?string  $field  its name
     * @param  ?string  $wrap  kind of the object that a value is put into; null where it stands by itself
     * @param  ?string  $none  what leaving it out is called: "No due date"; null where it cannot be
     * @param  string  $hint  said above a form
     * @param  mixed  $begins  what is put there to begin with
     * @param  string  $then  where it goes on, from there
     */
    private function __construct(
        public EditorSort $sort,
        public string $label,
        public ?Closure $offers = null,
        public ?Closure $ways = null,
        public bool $many = false,
        public array $clears = [],
        public bool $isLong = false,
        public bool $merges = false,
        public bool $mayBeEmpty = false,
        public ?int $least = null,
        public ?int $most = null,
        public bool $isWhole = false,
        public ?string $type = null,
        public ?string $field = null,
        public ?string $wrap = null,
        public ?string $none = null,
        public string $hint = '',
        public mixed $begins = null,
        public string $then = '',
    ) {
    }

    /** @param  Closure(): list<Offer>  $offers */
    public static function choose(string $label, Closure $offers): self
    {
        return new self(EditorSort::Choose, $label, $offers);
    }

    /**
     * @param  Closure(): list<Offer>  $offers
     * @param  list<string>  $clears
     */
    public static function chooseSeveral(string $label, Closure $offers, array $clears = []): self
    {
        return new self(EditorSort::Choose, $label, $offers, many: true, clears: $clears);
    }

    /**
     * @param  Field  $field  one of the type's, or any where it is of none: then only its kind is told
     * @param  ?Closure(): list<Offer>  $offers  what can stand there besides a value
     */
    public static function value(
        ?string $type,
        Field $field,
        ?Closure $offers = null,
        bool $many = false,
        bool $mayBeEmpty = false,
        ?string $wrap = null,
    ): self {
        return new self(
            EditorSort::Value, $field->label, $offers, many: $many, mayBeEmpty: $mayBeEmpty, type: $type,
            field: $type === null ? null : $field->name, wrap: $wrap,
        );
    }

    /** A line of plain text. */
    public static function line(string $label, ?int $most = null, bool $mayBeEmpty = false): self
    {
        return new self(EditorSort::Text, $label, mayBeEmpty: $mayBeEmpty, most: $most);
    }

    /** A text that fields can be merged into. */
    public static function template(string $label, int $most = 200, bool $isLong = false, bool $mayBeEmpty = false): self
    {
        return new self(EditorSort::Text, $label, isLong: $isLong, merges: true, mayBeEmpty: $mayBeEmpty, most: $most);
    }

    /** @param  ?Closure(): list<Offer>  $offers  what can stand there besides a number */
    public static function number(
        string $label,
        ?int $least = null,
        ?int $most = null,
        bool $isWhole = true,
        ?Closure $offers = null,
    ): self {
        return new self(EditorSort::Number, $label, $offers, least: $least, most: $most, isWhole: $isWhole);
    }

    /**
     * @param  Closure(): list<Way>  $ways
     * @param  list<string>  $clears
     * @param  ?Closure(): list<Offer>  $offers  what can stand there besides
     */
    public static function form(
        string $label,
        Closure $ways,
        ?string $none = null,
        string $hint = '',
        array $clears = [],
        ?Closure $offers = null,
    ): self {
        return new self(EditorSort::Form, $label, $offers, $ways, clears: $clears, none: $none, hint: $hint);
    }

    public static function formula(): self
    {
        return new self(EditorSort::Formula, 'A formula over the fields');
    }

    public static function timetable(): self
    {
        return new self(EditorSort::Timetable, 'When it comes round');
    }

    /** @param  bool  $isPlain  whether it is a text without subject or form */
    public static function letter(bool $isPlain): self
    {
        return new self(EditorSort::Letter, $isPlain ? 'The text message' : 'The message', isLong: ! $isPlain);
    }

    /** @param  mixed  $json  what is put there */
    public static function begin(mixed $json, string $then = ''): self
    {
        return new self(EditorSort::Begin, '', begins: $json, then: $then);
    }

    /** Conditions of their own, which begin with one gap. */
    public static function conditions(): self
    {
        return self::begin(['kind' => 'all', 'of' => [new \stdClass]], '/of/0');
    }
}
