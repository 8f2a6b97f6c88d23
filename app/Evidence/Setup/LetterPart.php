<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

use App\Models\Library\StoredLetter;
use App\Store\Access\RecordAuthorizer;
use App\Store\Library\KeptStore;

/** Letters, each as its latest version. */
final class LetterPart extends NamedPart
{
    public function __construct(private readonly KeptStore $store, private readonly RecordAuthorizer $gate)
    {
    }

    public static function folder(): string
    {
        return 'letters';
    }

    public static function schema(): array
    {
        return ['required' => ['name', 'on', 'subject', 'body'], 'properties' => [
            'name' => ['type' => 'string', 'minLength' => 1, 'maxLength' => 60], 'on' => ['type' => 'string'],
            'subject' => ['type' => 'string'], 'body' => ['type' => 'string'],
        ]];
    }

    protected function kept(): array
    {
        return StoredLetter::query()->with('currentVersion')->orderBy('name')->get()->mapWithKeys(
            static fn (StoredLetter $row): array => [$row->id => [
                'name' => $row->name, 'on' => $row->record_type, 'subject' => $row->currentVersion->subject,
                'body' => $row->currentVersion->body,
            ]],
        )->all();
    }

    protected function keep(?int $id, array $document, int $by): void
    {
        $type = $this->gate->type((string) $document['on']);
        $this->store->keepLetter(
            $type, $id, null, (string) $document['name'], (string) $document['subject'], (string) $document['body'], $by,
        );
    }
}
