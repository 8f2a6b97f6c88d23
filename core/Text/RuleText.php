<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\People\Directory;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;
use VividLedger\Shape\Node;
use VividLedger\Shape\Scope;

/**
 * A rule as text, in both directions. What has no words of its own stands as JSON between ⟦ and ⟧, so that every rule has a
 * text; each piece that is printed is read back at once, and what would not come back the same is put between those brackets.
 */
final readonly class RuleText
{
    private const BESIDES = ['at', 'onlyIf', 'tooLate', 'key', 'off'];

    public function __construct(
        private Schema $schema,
        private Directory $directory,
        private \DateTimeZone $zone,
    ) {
    }

    /** @param  array<mixed>  $file  a rule file, finished or not */
    public function print(array $file): string
    {
        $node = new Node($file);
        $type = $this->schema->type($node->child('on')->text() ?? '');
        if ($type === null) {
            return self::raw($file);
        }
        $scope = new Scope($this->schema, $this->directory, $type, $this->zone);
        $rows = [
            'Rule '.Cursor::quote((string) $node->child('name')->text()),
            'When '.(preg_match('/^[aeiou]/i', $type->label) === 1 ? 'an' : 'a')." {$type->label} ".$this->piece(
                Sentences::trigger(),
                $file['when'] ?? [],
                $scope,
            ),
        ];
        $condition = $file['onlyIf'] ?? null;
        if (is_array($condition) && ($condition['of'] ?? null) !== []) {
            $rows[] = 'Only if '.$this->piece(new Conditions(true), $condition, $scope);
        }
        $rows[] = 'Fires '.$this->piece(Sentences::guard(), $file['fires'] ?? [], $scope);
        foreach ($node->child('lines')->items() as $line) {
            $rows[] = $this->line(is_array($line->raw) ? $line->raw : [], $scope);
        }
        if (is_array($file['until'] ?? null)) {
            $rows[] = 'Until '.$this->piece(new Conditions, $file['until'], $scope);
        }
        if (is_array($file['never'] ?? null)) {
            $rows[] = 'Never '.$this->piece(Sentences::never(), $file['never'], $scope);
        }

        return implode("\n", $rows)."\n";
    }

    public function parse(string $text): TextReading
    {
        $file = ['lines' => []];
        $misread = [];
        $type = null;
        foreach (preg_split('/\R/u', $text) ?: [] as $index => $row) {
            if (trim($row) === '') {
                continue;
            }
            $cursor = new Cursor($row);
            if (! $this->row($cursor, $file, $type) || ! $cursor->isDone()) {
                if ($cursor->isDone() === false) {
                    $cursor->expectSome('the end of the line');
                }
                $misread[] = new Misreading($index + 1, ...$cursor->misread());
            }
        }
        if ($type === null && $misread === []) {
            $misread[] = new Misreading(1, 0, '', ['When a …'], []);
        }

        return new TextReading($misread === [] ? $file : null, $misread);
    }

    /** A single line of a rule, as it is typed: "after 2 working days remind the owner’s manager". */
    public function parseLine(string $text, RecordType $type): TextReading
    {
        $cursor = new Cursor($text);
        $line = $this->readLine($cursor, new Scope($this->schema, $this->directory, $type, $this->zone));
        if ($line !== null && $cursor->isDone()) {
            return new TextReading($line);
        }

        return new TextReading(null, [new Misreading(1, ...$cursor->misread())]);
    }

    /**
     * @param  array<mixed>  $file
     */
    private function row(Cursor $cursor, array &$file, ?RecordType &$type): bool
    {
        $start = $cursor->at;
        if ($cursor->words('Rule')) {
            $name = $cursor->quoted();
            if ($name !== null) {
                $file['name'] = $name;

                return true;
            }
        }
        $cursor->at = $start;
        if ($cursor->words('When')) {
            $found = Sentences::types()->parse(
                $cursor,
                new Scope($this->schema, $this->directory, array_values($this->schema->types)[0], $this->zone),
                [],
            );
            $type = $found === null ? null : $this->schema->type((string) (is_string($found[0]) ? $found[0] : ''));
            $trigger = $type === null ? null : $this->read(Sentences::trigger(), $cursor, $this->scope($type));
            if ($type === null || $trigger === null) {
                return false;
            }
            $file['on'] = $type->name;
            $file['when'] = $trigger;

            return true;
        }
        if ($type === null) {
            $cursor->expect('When');

            return false;
        }
        $scope = $this->scope($type);
        foreach (['onlyIf' => ['Only if', new Conditions(true)], 'fires' => ['Fires', Sentences::guard()],
            'until' => ['Until', new Conditions], 'never' => ['Never', Sentences::never()]] as $part => [$word, $slot]) {
            if ($cursor->words($word)) {
                $read = $this->read($slot, $cursor, $scope);
                $file[$part] = $read;

                return $read !== null;
            }
        }
        $line = $this->readLine($cursor, $scope);
        $file['lines'] = [...(is_array($file['lines'] ?? null) ? $file['lines'] : []), $line];

        return $line !== null;
    }

    private function scope(RecordType $type): Scope
    {
        return new Scope($this->schema, $this->directory, $type, $this->zone);
    }

    /** @param  array<mixed>  $line */
    private function line(array $line, Scope $scope): string
    {
        $inner = array_diff_key($line, array_flip(self::BESIDES));
        $text = Sentences::line()->print($inner, $scope, []) ?? self::raw($inner);
        $at = $line['at'] ?? null;
        if ($at !== null && $at !== []) {
            $said = $this->piece(Sentences::timing(), $at, $scope);
            $text = mb_strtoupper(mb_substr($said, 0, 1)).mb_substr($said, 1).": {$text}";
        }
        $text .= isset($line['onlyIf']) ? ', only if '.$this->piece(new Conditions, $line['onlyIf'], $scope) : '';
        $text .= isset($line['tooLate']) ? ', too late after '.$this->piece(Amounts::length(), $line['tooLate'], $scope) : '';
        $text .= is_string($line['key'] ?? null) ? ', known as '.Cursor::quote($line['key']) : '';
        $text .= ($line['off'] ?? null) === true ? ', switched off' : '';
        $cursor = new Cursor($text);
        $read = $this->readLine($cursor, $scope);

        return $read !== null && $cursor->isDone() && self::same($read, $line) ? $text : self::raw($line);
    }

    /** @return ?array<mixed> */
    private function readLine(Cursor $cursor, Scope $scope): ?array
    {
        $cursor->pattern('[-*•]\s+', '');
        $raw = self::readRaw($cursor);
        $start = $cursor->at;
        $besides = [];
        $timing = $raw === null ? $this->read(Sentences::timing(), $cursor, $scope) : null;
        if ($timing !== null) {
            $besides['at'] = $timing;
            $cursor->pattern('[:,]', ':');
        } else {
            $cursor->at = $start;
            if ($cursor->words('at once')) {
                $cursor->pattern('[:,]', ':');
            }
        }
        $line = $raw ?? $this->read(Sentences::line(), $cursor, $scope);
        if ($line === null && $timing !== null) {
            // It can have been no timing after all.
            $cursor->at = $start;
            $besides = [];
            $line = $this->read(Sentences::line(), $cursor, $scope);
        }

        return $line === null ? null : $this->besides($cursor, $scope, $line, $besides);
    }

    /**
     * What stands behind a line, in any order.
     *
     * @param  array<mixed>  $line
     * @param  array<mixed>  $besides
     * @return array<mixed>
     */
    private function besides(Cursor $cursor, Scope $scope, array $line, array $besides): array
    {
        do {
            $start = $cursor->at;
            $cursor->pattern(',', ',');
            [$key, $read] = match (true) {
                ! isset($besides['onlyIf']) && $cursor->words('only if') => ['onlyIf', $this->read(new Conditions, $cursor, $scope)],
                ! isset($besides['tooLate']) && $cursor->words('too late after') => [
                    'tooLate', $this->read(Amounts::length(), $cursor, $scope),
                ],
                ! isset($besides['key']) && $cursor->words('known as') => ['key', $cursor->quoted()],
                ! isset($besides['off']) && $cursor->words('switched off') => ['off', true],
                ! isset($besides['at']) => ['at', $this->read(Sentences::timing(), $cursor, $scope)],
                default => ['', null],
            };
            if ($read === null) {
                $cursor->at = $start;
                break;
            }
            $besides[$key] = $read;
        } while (true);

        return $line + $besides;
    }

    private function piece(Slot $slot, mixed $json, Scope $scope): string
    {
        $text = $slot->print($json, $scope, []);
        if ($text === null) {
            return self::raw($json);
        }
        $cursor = new Cursor($text);
        $read = $slot->parse($cursor, $scope, []);

        return $read !== null && $cursor->isDone() && self::same($read[0], $json) ? $text : self::raw($json);
    }

    /** @return ?array<mixed> */
    private function read(Slot $slot, Cursor $cursor, Scope $scope): ?array
    {
        $raw = self::readRaw($cursor);
        if ($raw !== null) {
            return $raw;
        }
        $read = $slot->parse($cursor, $scope, []);

        return $read !== null && is_array($read[0]) ? array_diff_key($read[0], ['' => true]) : null;
    }

    private static function raw(mixed $json): string
    {
        return '⟦'.json_encode($json, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_HEX_QUOT | JSON_HEX_APOS).'⟧';
    }

    /** @return ?array<mixed> */
    private static function readRaw(Cursor $cursor): ?array
    {
        $cursor->skip();
        $found = $cursor->pattern('⟦([^⟧]*)⟧', '');
        $json = $found === null ? null : json_decode(str_replace('“', '"', str_replace('”', '"', $found[1])), true);

        return is_array($json) ? $json : null;
    }

    /** Whether two pieces of rule files mean the same: nothing and no key are alike, and so is the order of keys. */
    private static function same(mixed $one, mixed $other): bool
    {
        return json_encode(self::plain($one)) === json_encode(self::plain($other));
    }

    /** What a rule file says, without what goes without saying. */
    public static function plain(mixed $json): mixed
    {
        if (! is_array($json)) {
            return $json;
        }
        $plain = array_map(self::plain(...), $json);
        if (! array_is_list($plain)) {
            $plain = array_filter(
                $plain,
                static fn (mixed $value, int|string $key): bool => $key !== '' && $value !== null
                    && ! ($key === 'channel' && $value === 'email'),
                ARRAY_FILTER_USE_BOTH,
            );
            ksort($plain);
        }

        return $plain;
    }
}
