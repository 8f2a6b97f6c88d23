<?php

declare(strict_types=1);

namespace VividLedger\Listing;

use VividLedger\Condition\Given\GivenStart;
use VividLedger\House\Person;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Text\RuleText;
use VividLedger\Text\TextReading;

/**
 * What people type above a list: "my tickets", "unassigned and due this week", "Larch Offices". What the grammar of conditions does not
 * understand as it stands is said to it as people mean it: whose they are, when, and which record by its name.
 */
final class HeardFilter
{
    private const WITHIN = '/^(?:(.+?)\s+)??(?:(?:is|falls|was|lies)\s+)?(?:(?:in|during|within)\s+)?'
        .'(this|next|last|previous|past)\s+(week|month|year)$/u';

    private const STILL = '/^(?:(?:no|without) (?:activity|changes?|movement)|untouched|unchanged|not changed|stale)'
        .'(?: for| in| since)? (.+)$/u';

    /** So many readings are tried at most: whoever types nonsense waits no longer than others. */
    private int $left = 24;

    /**
     * @param  Person  $asking  who is "me"
     * @param  list<Person>  $people  whom a first name can mean
     */
    public function __construct(
        private readonly RuleText $text,
        private readonly RecordType $type,
        private readonly Person $asking,
        private readonly array $people,
        private readonly RecordNames $records,
    ) {
    }

    public function read(string $typed): TextReading
    {
        return $this->heard(trim($typed));
    }

    private function heard(string $typed): TextReading
    {
        $asItIs = $this->text->parsePart($typed, 'onlyIf', $this->type);
        if ($typed === '' || $asItIs->misread === [] || --$this->left < 0) {
            return $asItIs;
        }
        $pieces = $this->pieces($typed);
        if ($pieces !== null) {
            return $pieces;
        }
        foreach ($this->sentences($typed) as $sentence) {
            $reading = $this->heard($sentence);
            if ($reading->misread === []) {
                return $reading;
            }
        }

        return $this->named($typed) ?? $asItIs;
    }

    /** Where every piece between "and" is understood, all of them have to hold. */
    private function pieces(string $typed): ?TextReading
    {
        // Not within quotes.
        $pieces = preg_split('/(?:\s*,\s*(?:and\s+)?|\s+and\s+)(?=(?:[^"“”]*["“][^"”]*["”])*[^"“”]*$)/iu', $typed) ?: [];
        $conditions = [];
        foreach (count($pieces) < 2 ? [] : $pieces as $piece) {
            $file = $this->heard($piece)->file;
            if ($file === null) {
                return null;
            }
            array_push($conditions, ...($file['kind'] === 'all' && is_array($file['of']) ? $file['of'] : [$file]));
        }

        return $conditions === [] ? null : new TextReading(['kind' => 'all', 'of' => $conditions]);
    }

    /** @return iterable<string> what it can mean, as the grammar says it, the likeliest first */
    private function sentences(string $typed): iterable
    {
        $said = mb_strtolower($typed);
        $owner = $this->type->field($this->type->owner)?->label;
        $noun = '(?:'.preg_quote(mb_strtolower($this->type->plural), '/').'|'.preg_quote($this->type->inSentence(), '/').')';
        if (preg_match("/^(?:all |only |show |the )*(.+?)\\s+{$noun}$/u", $said, $found) === 1) {
            yield mb_substr($typed, (int) mb_strpos($said, $found[1]), mb_strlen($found[1]));
        }
        if ($owner !== null) {
            yield from $this->owned($typed, $owner);
        }
        if (preg_match('/^late$/u', $said) === 1) {
            yield 'overdue';
        }
        yield from $this->inTime($said);
        if (preg_match('/^(.+?)\s+(?:contains|includes|mentions|has|with|like)\s+([^"“”]+)$/iu', $typed, $found) === 1) {
            yield "{$found[1]} contains “{$found[2]}”";
        }
    }

    /** @return iterable<string> */
    private function owned(string $typed, string $owner): iterable
    {
        $me = $this->asking->name;
        if (preg_match('/^(?:my|mine)\b(?:\s+own\b)?\s*(.*)$/iu', $typed, $found) === 1) {
            $rest = mb_strtolower($found[1]);
            $isAll = in_array($rest, ['', 'ones', mb_strtolower($this->type->plural), $this->type->inSentence()], true);
            yield $isAll ? "{$owner} is {$me}" : "{$owner} is {$me} and {$found[1]}";
        }
        if (preg_match('/^(.+?)\s+(?:me|myself)$/iu', $typed, $found) === 1) {
            yield "{$found[1]} {$me}";
        }
        if (preg_match('/^(?:unassigned|not assigned|nobody(?:’|\')?s|ownerless)$/iu', $typed) === 1) {
            yield "{$owner} is empty";
        }
        preg_match('/^(?:(?:owned|handled) by|(?:assigned|belongs|belonging) to|of|for|with|.+?\s+is|=)\s+(.+)$/iu', $typed, $found);
        $asked = mb_strtolower($found[1] ?? $typed);
        $names = array_map(static fn (Person $person): string => $person->name, $this->people);
        $first = array_filter($names, static fn (string $name): bool => mb_strtolower(explode(' ', $name)[0]) === $asked);
        $whole = array_filter($names, static fn (string $name): bool => mb_strtolower($name) === $asked);
        // A first name that two have means neither.
        foreach ($whole !== [] || count($first) !== 1 ? $whole : $first as $name) {
            yield "{$owner} is {$name}";
        }
    }

    /** @return iterable<string> */
    private function inTime(string $said): iterable
    {
        if (preg_match(self::WITHIN, $said, $found) === 1) {
            $dates = $this->dates($found[1]);
            [$which, $next] = match ($found[2]) {
                'this' => ['this', "next_{$found[3]}"],
                'next' => ['next', "{$found[3]}_after_next"],
                default => ['last', "this_{$found[3]}"],
            };
            [$from, $until] = [GivenStart::PERIODS["{$which}_{$found[3]}"][0], GivenStart::PERIODS[$next][0]];
            foreach ($dates as $date) {
                yield "{$date} is on or after the start of {$from} and {$date} is before the start of {$until}";
            }
        }
        if (preg_match('/^(older|newer|younger) than (.+)$/u', $said, $found) === 1) {
            yield 'Created is '.($found[1] === 'older' ? 'before' : 'after')." {$found[2]} ago";
        }
        if (preg_match(self::STILL, $said, $found) === 1) {
            yield "Last changed is before {$found[1]} ago";
        }
    }

    /** @return list<string> labels of the dates that are meant: by how they begin, or else the one that says when it is due */
    private function dates(string $said): array
    {
        $dates = array_filter($this->type->fields, static fn (Field $field): bool => $field->type->isMoment());
        $labels = array_values(array_map(static fn (Field $field): string => $field->label, $dates));

        return array_values(array_filter($labels, static fn (string $label): bool => $said === ''
            ? mb_strtolower($label) === 'due' : str_starts_with(mb_strtolower($label).' ', "{$said} ")));
    }

    /** A record that is meant by its name: "Larch Offices", "customer is Larch Offices", "for Larch Offices". */
    private function named(string $typed): ?TextReading
    {
        $readings = [];
        foreach ($this->type->fields as $field) {
            if ($field->type !== FieldType::Reference || $field->target === null) {
                continue;
            }
            $label = preg_quote($field->label, '/');
            $isSaid = preg_match("/^{$label}\\s*(?:\\bis\\b|=|:)?\\s*(.+)$/iu", $typed, $found) === 1
                || preg_match('/^(?:for|from|of|at|with)\s+(.+)$/iu', $typed, $found) === 1;
            foreach ($this->records->called($field->target, $isSaid ? $found[1] : $typed) as $number) {
                $readings[] = ['kind' => 'all', 'of' => [['field' => $field->name, 'kind' => 'is', 'value' => $number]]];
            }
        }

        return match (count($readings)) {
            0 => null,
            1 => new TextReading($readings[0]),
            default => new TextReading(null, [], $readings),
        };
    }
}
