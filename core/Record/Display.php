<?php

declare(strict_types=1);

namespace VividLedger\Record;

use VividLedger\People\Names;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;

/** Values as a person reads them: "€ 1,240.00", "24 Nov 2026", "Waiting on customer". */
final readonly class Display
{
    private const CURRENCY_SIGNS = ['EUR' => '€', 'GBP' => '£', 'USD' => '$'];

    public function __construct(
        private Names $names,
        private \DateTimeZone $zone,
    ) {
    }

    /** @return string "empty" for an empty value */
    public function of(Field $field, string|int|bool|null $value): string
    {
        if ($value === null) {
            return 'empty';
        }
        $text = (string) $value;

        return match ($field->type) {
            FieldType::Tick => $value === true ? 'ticked' : 'not ticked',
            FieldType::Choice => $field->choice($text)->label ?? $text,
            FieldType::Number => self::grouped($text),
            FieldType::Percent => self::grouped($text).' %',
            FieldType::Money => trim((self::CURRENCY_SIGNS[$field->currency ?? ''] ?? $field->currency ?? '').' '.self::grouped($text)),
            FieldType::Date => self::day($text),
            FieldType::DateTime => $this->moment(new \DateTimeImmutable($text)),
            FieldType::Person => $this->names->person((int) $value)->name ?? "person {$text}",
            FieldType::Reference => $this->names->title($field->target ?? '', (int) $value) ?? "record {$text}",
            default => $text,
        };
    }

    public function moment(\DateTimeImmutable $instant): string
    {
        return $instant->setTimezone($this->zone)->format('j M Y H:i');
    }

    private static function day(string $date): string
    {
        return (new \DateTimeImmutable($date.'T00:00:00Z'))->format('j M Y');
    }

    /** Thousands are grouped in the text itself: a float would lose digits. */
    private static function grouped(string $decimal): string
    {
        [$whole, $fraction] = explode('.', $decimal) + [1 => ''];
        $grouped = preg_replace('/(?<=\d)(?=(\d{3})+$)/', ',', $whole) ?? $whole;

        return $fraction === '' ? $grouped : "{$grouped}.{$fraction}";
    }
}
