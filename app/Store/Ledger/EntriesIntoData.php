<?php

declare(strict_types=1);

namespace App\Store\Ledger;

use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\People\Person;
use App\Models\Records\FieldChange;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use Illuminate\Support\Collection;
use VividLedger\Record\Value;

/**
 * Turns what entries of earlier versions kept as sentences into data: moments into ISO 8601, people into their numbers, values into
 * those of the history of fields. What cannot be told for certain stays the text it was, and reads as it did.
 */
final readonly class EntriesIntoData
{
    private const CHUNK = 500;

    /** Kinds of entries that kept words of which data can be made. */
    private const KINDS = [
        'created', 'changed', 'deleted', 'restored', 'reversed', 'fired', 'line', 'struck', 'retimed', 'postponed', 'too_late',
        'task_changed', 'task_due', 'gathered',
    ];

    /** @var array<string, int> the people whose name nobody shares */
    private array $people;

    public function __construct(private SchemaStore $schemas, private Company $company)
    {
        $names = Person::query()->pluck('id', 'name');
        $shared = Person::query()->groupBy('name')->havingRaw('COUNT(*) > 1')->pluck('name')->all();
        $this->people = $names->except($shared)->map(static fn (mixed $id): int => (int) $id)->all();
    }

    public function run(): void
    {
        Entry::query()->whereIn('kind', self::KINDS)->with('fields')->chunkById(self::CHUNK, function (Collection $entries): void {
            foreach ($entries as $entry) {
                $data = $this->turned($entry);
                if ($data !== $entry->data) {
                    Entry::rows()->where('id', $entry->id)->update(['data' => Columns::json((object) $data)]);
                }
            }
        });
    }

    /** @return array<array-key, mixed> */
    private function turned(Entry $entry): array
    {
        $data = $entry->data;
        // The history of fields keeps the values themselves.
        unset($data['changes']);
        if (is_array($data['lines'] ?? null)) {
            $data['lines'] = array_map(fn (array $line): array => $this->moments($line, ['due', 'to']), $data['lines']);
        }
        $data = $this->moments($data, ['until']);
        if (isset($data['did'])) {
            $data['did'] = array_map(fn (array $did): array => $this->outcome($did, $entry), $data['did']);
        }
        if (is_array($data['person'] ?? null)) {
            $data['person'] = array_map($this->person(...), $data['person']);
        } elseif (isset($data['person'])) {
            $data['person'] = $this->person($data['person']);
        }

        return $data;
    }

    /**
     * @param  array<string, mixed>  $did
     * @return array<string, mixed>
     */
    private function outcome(array $did, Entry $entry): array
    {
        if (isset($did['person'])) {
            $did['person'] = $this->person($did['person']);
        }
        $did = $this->moments($did, ['due', 'until']);
        if ($did['kind'] === 'created' && is_string($did['record'] ?? null)) {
            $title = explode(', ', $did['record'], 2)[1] ?? '';

            return ['kind' => 'created', 'record' => ['type' => $did['type'], 'id' => $did['id'], 'title' => $title]];
        }
        $field = $this->schemas->schema()->type((string) $entry->record_type)?->field((string) ($did['field'] ?? ''));
        $written = $field === null ? null : $entry->fields->where('record_id', $entry->record_id)->where('record_type', $entry->record_type)
            ->firstWhere('field', $field->name);
        if ($did['kind'] !== 'set' || isset($did['on']) || ! $written instanceof FieldChange || $did['changed'] !== true) {
            return $did;
        }
        // Set twice by one firing, only the whole of it is in the history.
        $times = count(array_filter($entry->data['did'], static fn (array $other): bool => ($other['field'] ?? null) === $did['field']));
        unset($did['label']);

        return $times !== 1 ? ['label' => $field->label] + $did
            : ['type' => $entry->record_type, 'before' => $written->before, 'after' => $written->after] + $did;
    }

    /**
     * @param  array<string, mixed>  $data
     * @param  list<string>  $names
     * @return array<string, mixed>
     */
    private function moments(array $data, array $names): array
    {
        foreach ($names as $name) {
            $at = is_string($data[$name] ?? null)
                ? \DateTimeImmutable::createFromFormat('!j M Y H:i', $data[$name], $this->company->zone()) : false;
            if ($at !== false) {
                $data[$name] = Value::instantText($at);
            }
        }

        return $data;
    }

    private function person(mixed $name): mixed
    {
        return is_string($name) ? $this->people[$name] ?? $name : $name;
    }
}
