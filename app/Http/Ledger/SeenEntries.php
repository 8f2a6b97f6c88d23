<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use App\Models\Ledger\Entry;
use App\Models\Records\FieldChange;
use App\Models\Rules\PublishedPage;
use App\Store\Access\AccessScope;
use App\Store\Access\RecordAuthorizer;
use App\Store\Access\SeenTexts;
use App\Store\Setup\Company;
use VividLedger\House\Directory;
use VividLedger\Rights\Act;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Schema;

/** What of an entry whoever asks may read: nothing of hidden fields, of records they do not see, or of conditions that read such. */
final class SeenEntries
{
    /** What of an entry's data is text that a rule or a person wrote. */
    private const TEXTS = ['text', 'title', 'subject', 'message', 'outcome'];

    /** What of it is how a rule reads, or why it did something, in words. */
    private const WORDS_OF_RULES = ['why', 'line', 'because', 'message', 'note'];

    /** Outcomes that tell how a line or a condition of the rule reads. */
    private const OUTCOMES_OF_RULES = ['case', 'skipped', 'failed'];

    /** @var array<string, bool> whether a page's conditions may be read, by rule, page and record type */
    private array $readable = [];

    public function __construct(
        private readonly AccessScope $inSight,
        private readonly RecordAuthorizer $gate,
        private readonly Directory $directory,
        private readonly Company $company,
        private readonly SeenTexts $texts,
    ) {
    }

    /** @return list<FieldChange> */
    public function fields(Entry $entry): array
    {
        $fields = array_values($entry->fields->all());
        if ($this->inSight->isEverything()) {
            return $fields;
        }
        $schema = $this->inSight->schema();

        return array_values(array_filter(
            $fields,
            static fn (FieldChange $change): bool => self::knows($schema, $change->record_type, $change->field),
        ));
    }

    /** @return array<array-key, mixed> */
    public function data(Entry $entry): array
    {
        $data = $entry->data;
        if ($this->inSight->isEverything()) {
            return $data;
        }
        if (is_array($data['did'] ?? null)) {
            $schema = $this->inSight->schema();
            $data['did'] = array_values(array_filter($data['did'], fn (mixed $did): bool => $this->seesOutcome($schema, $did)));
        }
        if (is_array($data['answers'] ?? null)) {
            $data['answers'] = array_values(array_filter($data['answers'], fn (mixed $answer): bool => ! is_array($answer)
                || ! isset($answer['path']) || $this->texts->may(["{$entry->record_type}:{$entry->record_id}:{$answer['path']}"])));
        }
        foreach (isset($data['tells']) ? self::TEXTS : [] as $text) {
            if (is_string($data[$text] ?? null)) {
                $data[$text] = $this->texts->shown($data[$text], self::told($data));
            }
        }
        $isReadable = $entry->rule_id === null || $this->mayReadRule($entry->rule_id, (int) $entry->page, (string) $entry->record_type);

        return $isReadable ? $data : $this->withoutItsWords($data);
    }

    /**
     * What is left of an entry of a rule that reads or writes what is hidden: not how its lines and conditions read.
     *
     * @param  array<array-key, mixed>  $data
     * @return array<array-key, mixed>
     */
    private function withoutItsWords(array $data): array
    {
        $data = array_diff_key($data, array_fill_keys(self::WORDS_OF_RULES, true));
        if (is_array($data['did'] ?? null)) {
            $data['did'] = array_values(array_filter($data['did'], static fn (mixed $did): bool => ! is_array($did)
                || ! in_array($did['kind'] ?? null, self::OUTCOMES_OF_RULES, true)));
        }
        if (is_array($data['lines'] ?? null)) {
            $data['lines'] = array_map(static fn (mixed $line): mixed => is_array($line) ? ['said' => SeenTexts::withheld()] + $line
                : $line,
                $data['lines']);
        }

        return $data;
    }

    /**
     * @param  array<array-key, mixed>  $data
     * @return list<string>
     */
    private static function told(array $data): array
    {
        return array_values(array_filter((array) ($data['tells'] ?? []), is_string(...)));
    }

    /**
     * Looks at once at what the texts of some entries tell of.
     *
     * @param  list<Entry>  $entries
     */
    public function remember(array $entries): void
    {
        $texts = [];
        foreach ($entries as $entry) {
            $texts[] = self::told($entry->data);
            foreach ((array) ($entry->data['did'] ?? []) as $did) {
                $texts[] = is_array($did) ? self::told($did) : [];
            }
        }
        $this->texts->remember($texts);
    }

    /** Whether everything the rule looks at, on records of a type and behind them, may be seen. */
    public function mayReadRule(int $rule, int $page, string $on): bool
    {
        return $this->inSight->isEverything() || ($this->readable["{$rule} {$page} {$on}"] ??= $this->reads($rule, $page, $on));
    }

    private function reads(int $rule, int $page, string $on): bool
    {
        $file = PublishedPage::query()->where('rule_id', $rule)->where('number', $page)->first()?->file;
        $reader = new RuleReader($this->openTo($on), $this->directory, $this->company->zone());

        return $file !== null && $reader->read($file)->problems === [];
    }

    /** The fields and types of which they see every value there is, and besides those of one type, of which they see a record. */
    private function openTo(string $on): Schema
    {
        $types = [];
        foreach ($this->inSight->schema()->types as $name => $type) {
            $isOpen = $this->inSight->isUnbounded(Act::Read, $name);
            if ($isOpen || $name === $on) {
                $types[$name] = $type->without(array_values(array_map(
                    static fn (Field $field): string => $field->name,
                    array_filter($type->fields, fn (Field $field): bool => $field->type === FieldType::Reference
                        && ! $this->inSight->isUnbounded(Act::Read, (string) $field->target)),
                )));
            }
        }

        return new Schema($types);
    }

    private function seesOutcome(Schema $schema, mixed $did): bool
    {
        if (! is_array($did)) {
            return false;
        }
        [$type, $field] = [$did['type'] ?? null, $did['field'] ?? null];
        if (is_string($type) && is_string($field) && ! self::knows($schema, $type, $field)) {
            return false;
        }
        if (! $this->texts->may(self::told($did))) {
            return false;
        }
        foreach (['on', 'record'] as $name) {
            $about = $did[$name] ?? null;
            if (is_array($about) && ! $this->gate->sees((string) ($about['type'] ?? ''), (int) ($about['id'] ?? 0))) {
                return false;
            }
        }

        return true;
    }

    private static function knows(Schema $schema, string $type, string $field): bool
    {
        return $schema->type($type)?->field($field) !== null;
    }
}
