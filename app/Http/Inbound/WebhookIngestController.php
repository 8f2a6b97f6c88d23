<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use App\Models\Inbound\Hook;
use App\Models\Inbound\HookOutcome;
use App\Store\DomainError;
use App\Store\RefusedFor;
use App\Work\Inbound\WebhookIngest;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** The address to which other systems post: answered by what a program understands, so that it comes again or stops. */
final class WebhookIngestController
{
    private const HEADERS = ['webhook-id', 'webhook-timestamp', 'webhook-signature'];

    public function __invoke(string $key, Request $request, WebhookIngest $door): JsonResponse
    {
        $hook = Hook::query()->firstWhere('key', $key);
        if ($hook === null) {
            return new JsonResponse(['taken' => false, 'why' => 'There is no such hook.'], 404);
        }
        $raw = (string) $request->getContent();
        if (strlen($raw) > WebhookIngest::MOST_BYTES) {
            return new JsonResponse(['taken' => false, 'why' => 'It is too large.'], 413);
        }
        $headers = [];
        foreach (self::HEADERS as $name) {
            $headers[$name] = (string) $request->headers->get($name, '');
        }
        try {
            $arrival = $door->take($hook, $raw, $headers);
        } catch (DomainError $refused) {
            return new JsonResponse(
                ['taken' => false, 'why' => $refused->getMessage()],
                $refused->for === RefusedFor::NotAllowed ? 401 : 410,
            );
        }
        $isRefused = $arrival->outcome === HookOutcome::Refused;

        return new JsonResponse(
            ['taken' => ! $isRefused, 'outcome' => $arrival->outcome->value]
                + ($isRefused ? ['why' => $arrival->trouble] : ['record' => $arrival->record_id]),
            $isRefused ? 422 : 200,
        );
    }
}
