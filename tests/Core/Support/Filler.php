<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use VividLedger\Rule\Reading\RulePage;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\People;
use VividLedger\Schema\Schema;
use VividLedger\Shape\Asked;
use VividLedger\Shape\Editor;
use VividLedger\Shape\EditorSort;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Problem;
use VividLedger\Shape\Way;
use VividLedger\Shape\Word;

/**
 * Somebody who knows nothing of rules: they press what a page offers, and fill in what it says is missing with the editor it gives for it.
 *
 * @phpstan-type File array<mixed>
 */
final readonly class Filler
{
    private const STEPS = 24;

    private const FORMULAS = [null, '1', 'empty(subject)', 'today()', 'subject', 'status', 'owner'];

    public function __construct(private RuleReader $reader, private Schema $schema)
    {
    }

    /**
     * @param  File  $file
     * @return array{File, ?Problem} what comes of it, and what cannot be mended by any word of the page
     */
    public function filled(array $file): array
    {
        for ($step = 0; $step < self::STEPS; $step++) {
            $page = $this->reader->read($file);
            $problem = $page->problems[0] ?? null;
            if ($problem === null) {
                return [$file, null];
            }
            $word = self::wordAt($page, $problem->at);
            if ($word === null) {
                return [$file, $problem];
            }
            $file = $this->answered($file, $word);
        }

        return [$file, $this->reader->read($file)->problems[0] ?? null];
    }

    /** @return list<Word> what can be pressed */
    public static function words(RulePage $page): array
    {
        $words = [];
        foreach ($page->rows as $row) {
            foreach ([...$row->words, ...($row->when === null ? [] : [$row->when])] as $word) {
                if ($word->at !== null && $word->editor !== null) {
                    $words["{$word->at} {$word->editor->sort->value} {$word->text}"] = $word;
                }
            }
        }

        return array_values($words);
    }

    /**
     * @param  File  $file
     * @return list<Offer>
     */
    public function offers(array $file, Word $word): array
    {
        return $word->editor?->offers === null ? [] : $this->page($file, $word)->offers;
    }

    /**
     * @param  File  $file
     * @return list<Way>
     */
    public function ways(array $file, Word $word): array
    {
        return $word->editor?->ways === null ? [] : $this->page($file, $word)->ways;
    }

    /**
     * @param  File  $file
     * @return File with an offer taken
     */
    public static function taken(array $file, Word $word, Offer $offer): array
    {
        $to = $offer->at ?? (string) $word->at;
        $there = self::at($file, $to);
        $value = $word->editor?->many === true ? [$offer->value] : $offer->value;
        $file = self::put($file, $to, $offer->merge ? (array) $offer->value + (is_array($there) ? $there : []) : $value);
        foreach ($offer->also as $place => $also) {
            $file = self::put($file, $place, $also);
        }
        foreach ($word->editor?->many === true ? $word->editor->clears : [] as $key) {
            $file = self::put($file, substr($to, 0, (int) strrpos($to, '/'))."/{$key}", null);
        }

        return $file;
    }

    /**
     * @param  File  $file
     * @return File with a form filled in as it shows itself
     */
    public static function formed(array $file, Word $word, Way $way): array
    {
        $at = (string) $word->at;
        $there = self::at($file, $at);
        $made = ($way->keeps && is_array($there) ? $there : []) + (array) $way->with;
        foreach ($way->fields as $field) {
            if ($field->sort === 'time' && $field->key === '') {
                $made = (array) $field->starts + array_diff_key($made, (array) $field->starts);
            } elseif ($field->isNeeded && $field->starts !== null) {
                $made[$field->key] = $field->starts;
            }
            foreach ($field->options as $option) {
                foreach ($option->value === ($made[$field->key] ?? null) ? $option->also : [] as $place => $value) {
                    $file = self::put($file, $place, $value);
                }
            }
        }

        return self::put($file, $at, $way->with === null ? null : $made);
    }

    /**
     * @param  File  $file
     * @return File
     */
    private function answered(array $file, Word $word): array
    {
        $editor = $word->editor ?? throw new \LogicException('Nothing to answer with.');
        $at = (string) $word->at;
        $offers = $this->offers($file, $word);

        return match ($editor->sort) {
            EditorSort::Choose => $offers === [] ? $file : self::taken($file, $word, $offers[0]),
            EditorSort::Form => self::formed($file, $word, $this->ways($file, $word)[0]),
            EditorSort::Begin => self::put($file, $at, $editor->begins),
            EditorSort::Text => self::put($file, $at, self::at($file, $at) === 'Said' ? 'said@larkmoss.example' : 'Said'),
            EditorSort::Number => self::put($file, $at, $editor->isWhole ? max(1, $editor->least ?? 1) : '1'),
            // What it has to come to is told where it comes to something else.
            EditorSort::Formula => self::put($file, $at,
                self::FORMULAS[1 + array_search(self::at($file, $at), self::FORMULAS, true)] ?? '1'),
            EditorSort::Timetable => self::put($file, $at, (array) self::at($file, $at) + [
                'rrule' => 'FREQ=DAILY', 'time' => '08:00', 'from' => '2026-11-24',
            ]),
            EditorSort::Letter => self::put($file, $at, ['subject' => 'Said', 'body' => $editor->isLong ? '<p>Said</p>' : 'Said']
                + (array) self::at($file, $at)),
            EditorSort::Value => self::put($file, $at, $this->value($editor)),
        };
    }

    private function value(Editor $editor): mixed
    {
        $field = $editor->type === null ? null : $this->field($editor);
        $value = $field === null ? '1' : self::of($field);
        $value = $editor->many ? [$value] : $value;

        return $editor->wrap === null ? $value : ['kind' => $editor->wrap, 'value' => $value];
    }

    private function field(Editor $editor): ?Field
    {
        $type = $editor->type === People::TYPE ? People::type() : $this->schema->types[(string) $editor->type];

        return $type->field((string) $editor->field);
    }

    private static function of(Field $field): string|int|bool
    {
        return match ($field->type) {
            FieldType::Choice, FieldType::Choices => $field->choices[0]->value,
            FieldType::Tick => true,
            FieldType::Date => '2026-12-01',
            FieldType::DateTime => '2026-12-01T08:00:00Z',
            FieldType::Number, FieldType::Money, FieldType::Percent => '1',
            FieldType::Person => 'edda',
            FieldType::Reference => $field->target === 'customer' ? 'C-0001' : 'T-0008',
            FieldType::Email => 'somebody@larkmoss.example',
            default => 'Said',
        };
    }

    /** @param  File  $file */
    private function page(array $file, Word $word): RulePage
    {
        return $this->reader->read($file, asked: new Asked((string) $word->at, $word->editor->sort ?? EditorSort::Choose));
    }

    /** The word at a place; a message is written as a whole. */
    private static function wordAt(RulePage $page, string $at): ?Word
    {
        $words = self::words($page);
        $there = array_filter($words, static fn (Word $word): bool => $word->at === $at);
        $letters = array_filter($words, static fn (Word $word): bool => $word->editor?->sort === EditorSort::Letter
            && in_array($at, ["{$word->at}/subject", "{$word->at}/body"], true));

        return [...$there, ...$letters][0] ?? null;
    }

    /** @param  File  $file */
    public static function at(array $file, string $at): mixed
    {
        foreach (array_slice(explode('/', $at), 1) as $key) {
            $file = is_array($file) ? ($file[$key] ?? null) : null;
        }

        return $file;
    }

    /**
     * @param  File  $file
     * @return File
     */
    public static function put(array $file, string $at, mixed $value): array
    {
        $keys = array_map(static fn (string $key): string => strtr($key, ['~1' => '/', '~0' => '~']), array_slice(explode('/', $at), 1));
        $last = array_pop($keys);
        $here = &$file;
        foreach ($keys as $key) {
            if (! is_array($here[$key] ?? null)) {
                $here[$key] = [];
            }
            $here = &$here[$key];
        }
        if ($value !== null) {
            $here[$last] = $value;
        } elseif (is_array($here) && array_is_list($here)) {
            array_splice($here, (int) $last, 1);
        } else {
            unset($here[$last]);
        }

        return json_decode((string) json_encode($file), true);
    }
}
