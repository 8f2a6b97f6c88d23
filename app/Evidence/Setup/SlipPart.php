<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

use App\Models\Slips\SlipForm;
use App\Store\Access\RecordAuthorizer;
use App\Store\Library\KeptStore;

/** Kept reply slips, each as its latest version. */
final class SlipPart extends NamedPart
{
    public function __construct(private readonly KeptStore $store, private readonly RecordAuthorizer $gate)
    {
    }

    public static function folder(): string
    {
        return 'slips';
    }

    public static function schema(): array
    {
        return ['required' => ['name', 'on', 'subject', 'body', 'asks'], 'properties' => [
            'name' => ['type' => 'string', 'minLength' => 1, 'maxLength' => 60], 'on' => ['type' => 'string'],
            'subject' => ['type' => 'string'], 'body' => ['type' => 'string'],
            'asks' => ['type' => 'array', 'items' => ['type' => 'object']],
        ]];
    }

    protected function kept(): array
    {
        return SlipForm::query()->with('currentVersion')->orderBy('name')->get()->mapWithKeys(
            static fn (SlipForm $row): array => [$row->id => [
                'name' => $row->name, 'on' => $row->record_type, 'subject' => $row->currentVersion->subject,
                'body' => $row->currentVersion->body, 'asks' => $row->currentVersion->asks,
            ]],
        )->all();
    }

    protected function keep(?int $id, array $document, int $by): void
    {
        $type = $this->gate->type((string) $document['on']);
        $this->store->keepSlip(
            $type, $id, null, (string) $document['name'], (string) $document['subject'], (string) $document['body'],
            array_values((array) $document['asks']), $by,
        );
    }
}
