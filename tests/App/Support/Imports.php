<?php

declare(strict_types=1);

namespace Tests\App\Support;

use App\Evidence\Lists\BulkWorker;
use Illuminate\Testing\TestResponse;

/** Files are sent, read, tried and brought in, as the screens do it. */
trait Imports
{
    private function begun(string $text, bool $answered): int
    {
        $id = $this->uploaded('customer', $text, 1_000_000)['job']['id'];
        $this->tried($id, ['0' => 'name', '1' => 'plan', '2' => 'owner'], null, 'create')->assertOk();
        $this->work();
        $this->as('ines.okafor', 'POST', "imports/{$id}/start", ['answered' => $answered])->assertOk();

        return $id;
    }

    /** @return array<string, mixed> the import as it was read */
    private function uploaded(string $type, string $content, int $bytes): array
    {
        $id = $this->as('ines.okafor', 'POST', 'imports', [
            'recordType' => $type, 'name' => 'customers.csv', 'bytes' => strlen($content),
        ])->assertCreated()->json('job.id');
        foreach (str_split($content, $bytes) as $place => $piece) {
            $this->piece($id, $place, $piece)->assertNoContent();
        }

        return $this->as('ines.okafor', 'POST', "imports/{$id}/read")->assertOk()->json();
    }

    private function piece(int $id, int $place, string $content): TestResponse
    {
        return $this->actingAs($this->person('ines.okafor'), 'sanctum')->call(
            'PUT', "/api/imports/{$id}/pieces/{$place}", server: [
                'CONTENT_TYPE' => 'application/octet-stream', 'HTTP_ACCEPT' => 'application/json',
            ], content: $content,
        );
    }

    /** @param  array<array-key, string>  $mapping */
    private function tried(int $id, array $mapping, ?string $key, string $mode): TestResponse
    {
        return $this->as('ines.okafor', 'POST', "imports/{$id}/try", ['mapping' => $mapping, 'key' => $key, 'mode' => $mode]);
    }

    private function work(): void
    {
        while ($this->app->make(BulkWorker::class)->work(60.0) > 0) {
        }
    }
}
