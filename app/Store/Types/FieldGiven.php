<?php

declare(strict_types=1);

namespace App\Store\Types;

use App\Store\DomainError;
use VividLedger\Record\InvalidValue;
use VividLedger\Record\Value;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Numbering;
use VividLedger\Schema\OnDelete;
use VividLedger\Schema\Schema;
use VividLedger\Words\Words;

/** What somebody wants of a field, checked, in the words of a record type's definition. */
final class FieldGiven
{
    private const LABEL = 60;

    private const MOST_CHOICES = 200;

    /** Our own colours, which only ever repeat what a choice says. */
    public const TONES = ['iris', 'fern', 'marigold', 'madder', 'harbor'];

    /**
     * A field that is to be.
     *
     * @param  array<string, mixed>  $given
     * @return array<string, mixed> as a definition has it
     *
     * @throws DomainError with the problem at its place
     */
    public static function made(array $given, Schema $schema): array
    {
        $type = FieldType::tryFrom((string) ($given['type'] ?? '')) ?? throw DomainError::at(
            '/type',
            Words::say('Choose what the field holds.'),
        );
        $field = ['label' => self::words($given['label'] ?? null, '/label', self::LABEL), 'type' => $type->value];
        if ($type === FieldType::Reference) {
            $target = (string) ($given['target'] ?? '');
            $field['target'] = $schema->type($target)->name ?? throw DomainError::at(
                '/target',
                Words::say('Choose to which records it leads.'),
            );
        }
        if ($type === FieldType::Money) {
            $currency = strtoupper((string) ($given['currency'] ?? 'EUR'));
            $field['currency'] = preg_match('/^[A-Z]{3}$/D', $currency) === 1 ? $currency
                : throw DomainError::at('/currency', Words::say('A currency has three letters, such as EUR.'));
        }
        if ($type->isDecimal()) {
            $scale = (int) ($given['scale'] ?? ($type === FieldType::Percent ? 1 : 2));
            $field['scale'] = $scale >= 0 && $scale <= 6 ? $scale
                : throw DomainError::at('/scale', Words::say('From none to six places behind the point.'));
        }

        if (($given['numbering'] ?? '') !== '') {
            $field['numbering'] = $type === FieldType::Text && Numbering::of((string) $given['numbering']) !== null
                ? (string) $given['numbering']
                    : throw DomainError::at('/numbering', Words::say('Say where it counts, such as “INV-{year}-{0000}”, in a text.'));
        }
        if (($given['formula'] ?? '') !== '') {
            $field['formula'] = (string) $given['formula'];
        }

        return self::changed($field, $given);
    }

    /**
     * @param  array<string, mixed>  $field  as the definition has it
     * @param  array<string, mixed>  $given  what is not there stays
     * @return array<string, mixed>
     *
     * @throws DomainError
     */
    public static function changed(array $field, array $given): array
    {
        $type = FieldType::from($field['type']);
        if (array_key_exists('label', $given)) {
            $field['label'] = self::words($given['label'], '/label', self::LABEL);
        }
        foreach (['required' => 'boolval', 'help' => 'strval', 'section' => 'trim', 'unique' => 'boolval'] as $member => $cast) {
            if (array_key_exists($member, $given)) {
                $field[$member] = $cast($given[$member] ?? '');
            }
        }
        foreach (['help' => 300, 'section' => 40] as $member => $most) {
            if (isset($field[$member]) && mb_strlen($field[$member]) > $most) {
                throw DomainError::at("/{$member}", Words::say('At most {most} characters.', most: $most));
            }
        }
        if (($field['unique'] ?? false)
            && in_array($type, [FieldType::LongText, FieldType::Tick, FieldType::Choices, FieldType::Tags], true)) {
            throw DomainError::at('/unique', Words::say('This cannot be told apart record by record.'));
        }
        if (array_key_exists('onDelete', $given)) {
            $field['on_delete'] = $type === FieldType::Reference ? OnDelete::tryFrom((string) $given['onDelete'])->value
                ?? throw DomainError::at('/onDelete', Words::say('Choose what becomes of the record.')) : null;
        }
        if (($field['on_delete'] ?? '') === OnDelete::Clear->value && ($field['required'] ?? false)) {
            throw DomainError::at('/onDelete', Words::say('No record is without it, so it cannot be emptied.'));
        }
        if (array_key_exists('requiredAt', $given)) {
            $field['required_at'] = array_values(array_filter((array) $given['requiredAt'], is_string(...)));
        }
        foreach ($type->isDecimal() ? ['min', 'max'] : [] as $bound) {
            if (array_key_exists($bound, $given)) {
                $amount = (string) $given[$bound];
                $field[$bound] = $amount === '' ? null : self::amount($amount, "/{$bound}");
            }
        }
        if (isset($field['min'], $field['max']) && (float) $field['min'] > (float) $field['max']) {
            throw DomainError::at('/max', Words::say('The most is less than the least.'));
        }
        if ($type === FieldType::Choice || $type === FieldType::Choices) {
            $choices = array_key_exists('choices', $given) ? (array) $given['choices'] : null;
            $field['choices'] = self::choices($field['choices'] ?? [], $choices);
        }

        if (isset($field['formula'], $given['formula']) && trim((string) $given['formula']) !== '') {
            $field['formula'] = (string) $given['formula'];
        }
        if (array_key_exists('default', $given)) {
            $field['default'] = self::default($field, $given['default']);
        }

        return array_filter($field, static fn (mixed $value): bool => ! in_array($value, [null, false, '', []], true));
    }

    /**
     * What something is called, without spare spaces.
     *
     * @throws DomainError at the place
     */
    public static function words(mixed $given, string $at, int $most): string
    {
        $words = trim((string) preg_replace('/\s+/u', ' ', is_string($given) ? $given : ''));
        if ($words === '' || mb_strlen($words) > $most) {
            throw DomainError::at(
                $at,
                $words === '' ? Words::say('Give it a name.') : Words::say('A name has at most {most} characters.', most: $most),
            );
        }

        return $words;
    }

    /**
     * @param  array<string, mixed>  $field
     *
     * @throws DomainError when the field would not take it
     */
    private static function default(array $field, mixed $given): string|int|bool|null
    {
        $read = Definition::read('', [
            'label' => '', 'plural' => '', 'prefix' => '', 'title' => '', 'owner' => '', 'fields' => ['default' => $field],
        ])->fields['default'];
        if ($read->type->isMoment() || $read->type === FieldType::Person || $read->type === FieldType::Reference || ! $read->isSettable()) {
            return $given === null || $given === '' ? null : throw DomainError::at('/default', Words::say('This begins empty.'));
        }
        try {
            return Value::of($read, $given) ?: null;
        } catch (InvalidValue $invalid) {
            throw DomainError::at('/default', $invalid->getMessage());
        }
    }

    private static function amount(string $given, string $at): string
    {
        return preg_match('/^-?\d{1,12}(\.\d{1,6})?$/D', $given) === 1 ? $given : throw DomainError::at(
            $at,
            Words::say('Give a number, such as 12.50.'),
        );
    }

    /**
     * @param  array<string, array<string, mixed>>  $known  by value
     * @param  ?array<mixed>  $given  in order, {value?, label, tone?, retired?}; null when they stay
     * @return array<string, array<string, mixed>>
     */
    private static function choices(array $known, ?array $given): array
    {
        if ($given === null) {
            return $known === [] ? throw DomainError::at('/choices', Words::say('Name at least one choice.')) : $known;
        }
        $kept = [];
        $labels = [];
        foreach (array_values($given) as $index => $choice) {
            $choice = is_array($choice) ? $choice : ['label' => $choice];
            $label = trim(is_string($choice['label'] ?? null) ? $choice['label'] : '');
            if ($label === '' || mb_strlen($label) > self::LABEL || isset($labels[mb_strtolower($label)])) {
                $message = $label === '' ? Words::say('Give the choice a name.') : Words::say('There is a choice of that name already.');
                throw DomainError::at("/choices/{$index}", $message);
            }
            $labels[mb_strtolower($label)] = true;
            $value = $choice['value'] ?? null;
            $value = is_string($value) && isset($known[$value]) ? $value
                : Slug::of($label, [...array_map(strval(...), array_keys($known)), ...array_map(strval(...), array_keys($kept))]);
            $tone = $choice['tone'] ?? null;
            $kept[$value] = array_filter([
                'label' => $label, 'tone' => in_array($tone, self::TONES, true) ? $tone : null,
                'closes' => $known[$value]['closes'] ?? null, 'retired' => ($choice['retired'] ?? false) === true ? true : null,
            ], static fn (mixed $member): bool => $member !== null);
            if (isset($choice['closes'])) {
                $kept[$value] = array_filter(['closes' => $choice['closes'] === true] + $kept[$value]);
            }
        }
        if ($kept === [] || count($kept) > self::MOST_CHOICES) {
            throw DomainError::at(
                '/choices',
                $kept === []
                    ? Words::say('Name at least one choice.')
                    : Words::say('At most {choices} choices.', choices: self::MOST_CHOICES),
            );
        }

        // What is kept in records never loses its words: a value that is left out is retired.
        return $kept + array_map(static fn (array $choice): array => ['retired' => true] + $choice, array_diff_key($known, $kept));
    }
}
