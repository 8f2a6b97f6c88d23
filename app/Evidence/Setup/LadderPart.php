<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

use App\Models\Library\StoredLadder;
use App\Store\Library\KeptStore;

/** Ladders: who is told when work stays undone. */
final class LadderPart extends NamedPart
{
    public function __construct(private readonly KeptStore $store)
    {
    }

    public static function folder(): string
    {
        return 'ladders';
    }

    public static function schema(): array
    {
        return ['required' => ['name', 'rungs'], 'properties' => [
            'name' => ['type' => 'string', 'minLength' => 1, 'maxLength' => 60],
            'rungs' => ['type' => 'array', 'items' => ['type' => 'object']],
        ]];
    }

    protected function kept(): array
    {
        return StoredLadder::query()->orderBy('name')->get()->mapWithKeys(
            static fn (StoredLadder $row): array => [$row->id => ['name' => $row->name, 'rungs' => $row->rungs]],
        )->all();
    }

    protected function keep(?int $id, array $document, int $by): void
    {
        $this->store->keepLadder($id, null, (string) $document['name'], array_values((array) $document['rungs']));
    }
}
