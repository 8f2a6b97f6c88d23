<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

use App\Models\Library\StoredCondition;
use App\Store\Access\RecordAuthorizer;
use App\Store\Library\KeptStore;

/** Named conditions. */
final class ConditionPart extends NamedPart
{
    public function __construct(private readonly KeptStore $store, private readonly RecordAuthorizer $gate)
    {
    }

    public static function folder(): string
    {
        return 'conditions';
    }

    public static function schema(): array
    {
        return ['required' => ['name', 'on', 'condition'], 'properties' => [
            'name' => ['type' => 'string', 'minLength' => 1, 'maxLength' => 60], 'on' => ['type' => 'string'],
            'condition' => ['type' => 'object'],
        ]];
    }

    public static function key(array $document): string
    {
        return "{$document['on']}: {$document['name']}";
    }

    protected function kept(): array
    {
        return StoredCondition::query()->orderBy('record_type')->orderBy('name')->get()->mapWithKeys(
            static fn (StoredCondition $row): array => [
                $row->id => ['name' => $row->name, 'on' => $row->record_type, 'condition' => $row->file],
            ],
        )->all();
    }

    protected function keep(?int $id, array $document, int $by): void
    {
        $type = $this->gate->type((string) $document['on']);
        $this->store->keepCondition($type, $id, null, (string) $document['name'], (array) $document['condition']);
    }
}
