<?php

declare(strict_types=1);

namespace VividLedger\Record;

use VividLedger\House\Names;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;

/** Values as a person reads them: "€ 1,240.00", "24 Nov 2026", "Waiting on customer". */
final readonly class Display
{
    private const CURRENCY_SIGNS = ['EUR' => '€', 'GBP' => '£', 'USD' => '$'];

    public function __construct(
        private Names $names,
        private \DateTimeZone $zone,
        private Language $language = Language::English,
    ) {
    }

    /** In the language of whoever reads. */
    public static function spoken(Names $names, \DateTimeZone $zone): self
    {
        return new self($names, $zone, Language::spoken());
    }

    public function in(Language $language): self
    {
        return new self($this->names, $this->zone, $language);
    }

    /** @return string "empty" for an empty value */
    public function of(Field $field, string|int|bool|null $value): string
    {
        if ($value === null) {
            return $this->language->nothing();
        }
        $text = (string) $value;

        return match ($field->type) {
            FieldType::Tick => $this->language->ticked($value === true),
            FieldType::Choice => $field->choice($text)->label ?? $text,
            FieldType::Choices => $this->language->list(array_map(
                static fn (string $member): string => $field->choice($member)->label ?? $member,
                Members::of($value),
            )),
            FieldType::Tags => $this->language->list(Members::of($value)),
            FieldType::Number => $this->language->number($text),
            FieldType::Percent => $this->language->number($text).' %',
            FieldType::Money => $this->language->money($text, self::CURRENCY_SIGNS[$field->currency ?? ''] ?? $field->currency ?? ''),
            FieldType::Date => $this->language->date(new \DateTimeImmutable($text.'T00:00:00Z')),
            FieldType::DateTime => $this->moment(new \DateTimeImmutable($text)),
            FieldType::Person => $this->names->person((int) $value)->name ?? "person {$text}",
            FieldType::Reference => $this->names->title($field->target ?? '', (int) $value) ?? "record {$text}",
            default => $text,
        };
    }

    /** As it reads inside a letter or a title: a tick box is yes or no, and an empty field leaves nothing behind. */
    public function merged(Field $field, string|int|bool|null $value): string
    {
        return match (true) {
            $value === null => '',
            is_bool($value) => $this->language->yes($value),
            default => $this->of($field, $value),
        };
    }

    public function moment(\DateTimeImmutable $instant): string
    {
        $local = $instant->setTimezone($this->zone);

        return $this->language->date($local).$local->format(' H:i');
    }
}
