<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

use App\Models\Outbound\Endpoint;
use App\Store\Outbound\EndpointStore;

/** Systems that rules call. What is secret of them is given where they are used, and stays there. */
final class EndpointPart extends NamedPart
{
    public function __construct(private readonly EndpointStore $store)
    {
    }

    public static function folder(): string
    {
        return 'endpoints';
    }

    public static function schema(): array
    {
        $number = static fn (int $most): array => ['type' => 'integer', 'minimum' => 1, 'maximum' => $most];

        return ['required' => ['name', 'url', 'method'], 'properties' => [
            'name' => ['type' => 'string', 'minLength' => 1, 'maxLength' => 60], 'url' => ['type' => 'string'],
            'method' => ['enum' => EndpointStore::METHODS],
            'headers' => ['type' => 'object', 'additionalProperties' => ['type' => 'string']], 'timeout' => $number(60),
            'tries' => $number(20), 'atOnce' => $number(50), 'perMinute' => $number(6000), 'mayBeInside' => ['type' => 'boolean'],
        ]];
    }

    protected function kept(): array
    {
        return Endpoint::query()->orderBy('name')->get()->mapWithKeys(static fn (Endpoint $row): array => [$row->id => [
            'name' => $row->name, 'url' => $row->url, 'method' => $row->method, 'headers' => $row->headers, 'timeout' => $row->timeout,
            'tries' => $row->most_tries, 'atOnce' => $row->at_once, 'perMinute' => $row->per_minute, 'mayBeInside' => $row->may_be_inside,
        ]])->all();
    }

    protected function keep(?int $id, array $document, int $by): void
    {
        $this->store->keep($id, null, [
            'name' => (string) $document['name'], 'url' => (string) $document['url'], 'method' => (string) $document['method'],
            'headers' => array_map(strval(...), (array) ($document['headers'] ?? [])), 'timeout' => (int) ($document['timeout'] ?? 10),
            'tries' => (int) ($document['tries'] ?? 5), 'atOnce' => (int) ($document['atOnce'] ?? 4),
            'perMinute' => (int) ($document['perMinute'] ?? 60), 'mayBeInside' => ($document['mayBeInside'] ?? false) === true,
            'secretHeaders' => null, 'signingSecret' => null,
        ]);
    }
}
