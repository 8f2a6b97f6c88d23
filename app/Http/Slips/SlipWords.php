<?php

declare(strict_types=1);

namespace App\Http\Slips;

use App\Store\DomainError;
use Illuminate\Support\Facades\Lang;
use VividLedger\Record\Language;
use VividLedger\Schema\FieldType;
use VividLedger\Slip\Question;

/** The words of the page in the language of whoever it is for. Where there are none, they stand in English. */
final readonly class SlipWords
{
    public function __construct(public Language $language)
    {
    }

    /** The language the words are really in, for whatever reads them aloud. */
    public function tag(): string
    {
        return Lang::hasForLocale('slip.send', $this->language->value) ? $this->language->value : Language::English->value;
    }

    /** @param  array<string, string|int>  $with */
    public function of(string $key, array $with = []): string
    {
        return (string) Lang::get("slip.{$key}", $with, $this->language->value);
    }

    /** Why something is refused; in English in the words of whatever refuses it. */
    public function refusal(DomainError $refused): string
    {
        return $this->own("refused.{$refused->reason}") ?? $refused->getMessage();
    }

    /**
     * What is wrong with each answer, by the place of its question.
     *
     * @param  list<Question>  $questions
     * @return array<string, string>
     */
    public function problems(DomainError $refused, array $questions): array
    {
        $problems = [];
        foreach ($refused->problems as $problem) {
            $place = substr($problem['at'], strlen('/answers/'));
            $field = ($questions[(int) $place] ?? null)?->field;
            $code = $problem['code'].($problem['code'] === 'required' && $field?->type === FieldType::Tick ? '_tick' : '');
            $with = $field === null ? [] : ['length' => $field->maxLength, 'scale' => $field->scale];
            $problems[$place] = $this->own("wrong.{$code}.".($field?->type->value ?? ''), $with) ?? $this->own("wrong.{$code}", $with)
                ?? $problem['message'];
        }

        return $problems;
    }

    /**
     * @param  array<string, string|int>  $with
     * @return ?string null where the language has no words for it
     */
    private function own(string $key, array $with = []): ?string
    {
        $said = Lang::hasForLocale("slip.{$key}", $this->language->value) ? Lang::get("slip.{$key}", $with, $this->language->value) : null;

        return is_string($said) ? $said : null;
    }
}
