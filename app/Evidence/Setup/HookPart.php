<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

use App\Models\Inbound\Hook;
use App\Store\Inbound\HookStore;

/** Where other systems post. A hook that is new here has an address and a secret of its own; one that was here keeps both. */
final class HookPart extends NamedPart
{
    public function __construct(private readonly HookStore $store)
    {
    }

    public static function folder(): string
    {
        return 'hooks';
    }

    public static function schema(): array
    {
        $pairs = static fn (string $one, string $other): array => ['type' => 'array', 'items' => [
            'type' => 'object', 'required' => [$one, $other],
            'properties' => [$one => ['type' => 'string'], $other => ['type' => 'string']],
        ]];

        return ['required' => ['name', 'on', 'takes'], 'properties' => [
            'name' => ['type' => 'string', 'minLength' => 1, 'maxLength' => 60], 'on' => ['type' => 'string'],
            'takes' => $pairs('path', 'field'), 'starts' => $pairs('field', 'value'), 'knownBy' => ['type' => ['string', 'null']],
            'mayCreate' => ['type' => 'boolean'], 'isOpen' => ['type' => 'boolean'],
        ]];
    }

    protected function kept(): array
    {
        return Hook::query()->orderBy('name')->get()->mapWithKeys(static fn (Hook $row): array => [$row->id => [
            'name' => $row->name, 'on' => $row->record_type, 'takes' => $row->takes, 'starts' => $row->starts, 'knownBy' => $row->known_by,
            'mayCreate' => $row->may_create, 'isOpen' => $row->is_open,
        ]])->all();
    }

    protected function keep(?int $id, array $document, int $by): void
    {
        $this->store->keep($id, null, [
            'name' => (string) $document['name'], 'recordType' => (string) $document['on'],
            'takes' => array_values((array) $document['takes']), 'starts' => array_values((array) ($document['starts'] ?? [])),
            'knownBy' => isset($document['knownBy']) ? (string) $document['knownBy'] : null,
            'mayCreate' => ($document['mayCreate'] ?? true) === true, 'isOpen' => ($document['isOpen'] ?? true) === true,
            'freshSecret' => false,
        ]);
    }
}
