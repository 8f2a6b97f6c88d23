<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

use App\Models\Library\StoredRoute;
use App\Store\Access\RecordAuthorizer;
use App\Store\Library\KeptStore;

/** Kept routes of sign-offs. */
final class RoutePart extends NamedPart
{
    public function __construct(private readonly KeptStore $store, private readonly RecordAuthorizer $gate)
    {
    }

    public static function folder(): string
    {
        return 'routes';
    }

    public static function schema(): array
    {
        return ['required' => ['name', 'on', 'steps'], 'properties' => [
            'name' => ['type' => 'string', 'minLength' => 1, 'maxLength' => 60], 'on' => ['type' => 'string'],
            'steps' => ['type' => 'array', 'items' => ['type' => 'object']],
        ]];
    }

    protected function kept(): array
    {
        return StoredRoute::query()->orderBy('name')->get()->mapWithKeys(
            static fn (StoredRoute $row): array => [$row->id => ['name' => $row->name, 'on' => $row->record_type, 'steps' => $row->steps]],
        )->all();
    }

    protected function keep(?int $id, array $document, int $by): void
    {
        $type = $this->gate->type((string) $document['on']);
        $this->store->keepRoute($type, $id, null, (string) $document['name'], array_values((array) $document['steps']));
    }
}
