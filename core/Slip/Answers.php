<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Record\Display;
use VividLedger\Record\InvalidValue;
use VividLedger\Record\Value;
use VividLedger\Schema\FieldType;
use VividLedger\Words\Words;

/** What somebody answered to the questions of a slip, checked like any save. */
final readonly class Answers
{
    /**
     * @param  list<Question>  $questions
     * @param  array<int, string|int|bool|null>  $values  by the place of the question, from 0; only of those that came up
     */
    private function __construct(public array $questions, public array $values)
    {
    }

    /**
     * @param  list<Question>  $questions
     * @param  array<array-key, mixed>  $raw  by the place of the question; of a file its name
     *
     * @throws BadAnswers with what is wrong with each
     */
    public static function checked(array $questions, array $raw): self
    {
        $values = [];
        $said = [];
        $problems = [];
        foreach ($questions as $place => $question) {
            if ($question->onlyIf !== null && ($said[$question->onlyIf->question] ?? null) !== $question->onlyIf->is) {
                continue;
            }
            try {
                $field = $question->field->called(Words::quoted($question->label));
                $value = Value::of($field, $raw[$place] ?? ($question->field->type === FieldType::Tick ? false : null));
            } catch (InvalidValue $invalid) {
                $problems[$place] = [$invalid->reason, $invalid->getMessage()];

                continue;
            }
            if ($question->isNeeded && ($value === null || $value === false)) {
                $isTick = $question->field->type === FieldType::Tick;
                $problems[$place] = ['required', $isTick ? Words::say('This has to be ticked.') : Words::say('This has to be answered.')];
            }
            $values[$place] = $value;
            $said[$question->label] = self::choice($question, $value);
        }
        if ($problems !== []) {
            throw new BadAnswers($problems);
        }

        return new self($questions, $values);
    }

    /** @return array<string, array<string, string|int|bool|null>> values by field, by the reference that leads to their record */
    public function fields(): array
    {
        $fields = [];
        foreach ($this->values as $place => $value) {
            $path = $this->questions[$place]->path;
            // What was left open says nothing about what is there.
            if ($path !== null && $value !== null) {
                $fields[$path->hops === [] ? '' : $path->first()->name][$path->field->name] = $value;
            }
        }

        return $fields;
    }

    /** @return list<string> what was chosen, as it reads: lines can wait for one of these */
    public function chosen(): array
    {
        $chosen = [];
        foreach ($this->values as $place => $value) {
            $one = $this->questions[$place]->isChoice() ? self::choice($this->questions[$place], $value) : null;
            if ($one !== null) {
                $chosen[] = $one;
            }
        }

        return $chosen;
    }

    /** @return list<array{asked: string, said: string, path?: string}> what was answered, in words, with the field it was written to */
    public function said(Display $display): array
    {
        $said = [];
        foreach ($this->values as $place => $value) {
            $question = $this->questions[$place];
            if ($value !== null) {
                $said[] = ['asked' => $question->label, 'said' => $question->field->type === FieldType::Tick
                    ? ($value === true ? Question::TICKED : 'No') : $display->of($question->field, $value)]
                    + ($question->path === null ? [] : ['path' => $question->path->name()]);
            }
        }

        return $said;
    }

    private static function choice(Question $question, string|int|bool|null $value): ?string
    {
        return match (true) {
            $value === true => Question::TICKED,
            is_string($value) && $question->field->type === FieldType::Choice => $question->field->choice($value)->label ?? $value,
            default => null,
        };
    }
}
