<?php

declare(strict_types=1);

namespace App\Http\Slips;

use VividLedger\Schema\Choice;
use VividLedger\Schema\FieldType;
use VividLedger\Slip\Question;

/** How a question is drawn on the page. */
final readonly class SlipControl
{
    /**
     * @param  string  $sort  pick, several, tick, lines, file, or the type of an input of HTML
     * @param  list<array{value: string, label: string, isOn: bool}>  $options
     * @param  ?array{place: int, is: string}  $onlyIf  the place of the question that brings it up, and the value it needs
     */
    private function __construct(
        public int $place,
        public string $label,
        public string $sort,
        public bool $isNeeded,
        public string $value,
        public array $options,
        public ?array $onlyIf,
        public string $hint,
        public string $inputMode,
    ) {
    }

    /** @param  list<Question>  $all  of the slip */
    public static function of(Question $question, int $place, mixed $value, array $all, SlipWords $words): self
    {
        $text = is_bool($value) ? ($value ? '1' : '') : (is_scalar($value) ? (string) $value : '');
        $chosen = is_array($value) ? array_map(strval(...), array_filter($value, is_scalar(...))) : explode(',', $text);

        return new self(
            place: $place, label: $question->label, sort: self::sort($question), isNeeded: $question->isNeeded, value: $text,
            options: array_map(static fn (Choice $choice): array => [
                'value' => $choice->value, 'label' => $choice->label, 'isOn' => in_array($choice->value, $chosen, true),
            ], $question->field->choices),
            onlyIf: self::onlyIf($question, $all), hint: self::hint($question, $words),
            inputMode: $question->field->type->isDecimal() ? 'decimal' : '',
        );
    }

    private static function sort(Question $question): string
    {
        return $question->isFile ? 'file' : match ($question->field->type) {
            FieldType::Choice => 'pick',
            FieldType::Choices => 'several',
            FieldType::Tick => 'tick',
            FieldType::LongText => 'lines',
            FieldType::Date => 'date',
            FieldType::DateTime => 'datetime-local',
            FieldType::Email => 'email',
            FieldType::Phone => 'tel',
            FieldType::Link => 'url',
            default => 'text',
        };
    }

    private static function hint(Question $question, SlipWords $words): string
    {
        $field = $question->field;
        $key = match (true) {
            $field->type === FieldType::Percent => 'percent',
            $field->type === FieldType::Money => 'money',
            $field->min !== null && $field->max !== null => 'between',
            $field->min !== null => 'least',
            $field->max !== null => 'most',
            default => '',
        };

        return $key === '' ? '' : $words->of("hint.{$key}", [
            'currency' => $field->currency ?? '', 'min' => (string) $field->min, 'max' => (string) $field->max,
        ]);
    }

    /**
     * @param  list<Question>  $all
     * @return ?array{place: int, is: string}
     */
    private static function onlyIf(Question $question, array $all): ?array
    {
        $wanted = $question->onlyIf;
        if ($wanted === null) {
            return null;
        }
        foreach ($all as $place => $other) {
            if ($other->label === $wanted->question) {
                $is = $wanted->is;
                foreach ($other->field->choices as $choice) {
                    $is = $choice->label === $wanted->is ? $choice->value : $is;
                }

                return ['place' => $place, 'is' => $is === Question::TICKED ? '1' : $is];
            }
        }

        return null;
    }
}
