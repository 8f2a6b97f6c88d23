<?php

declare(strict_types=1);

namespace App\Work;

use App\Models\Endpoint;
use App\Models\StoredCall;
use Illuminate\Http\Client\ConnectionException;
use Illuminate\Support\Facades\Http;
use StandardWebhooks\Webhook;

/** One HTTP request to an endpoint, signed as Standard Webhooks says, to an address that was checked; redirects are not followed. */
final class EndpointCall
{
    private const LONGEST_ANSWER = 1_000_000;

    private const LONGEST_WAIT = 3600;

    /** Nothing has left the house when one of these comes: no name, no way, no connection, no handshake. */
    private const NEVER_LEFT = [6, 7, 35, 60];

    public static function make(StoredCall $call, Endpoint $endpoint): Answered
    {
        $body = $call->payload === [] ? '{}' : json_encode($call->payload, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
        try {
            $pinned = SafeAddress::of($endpoint->url, $endpoint->may_be_inside);
        } catch (\DomainException $unsafe) {
            return new Answered(null, '', $unsafe->getMessage(), str_starts_with($unsafe->getMessage(), 'There is no host'));
        }
        try {
            $answer = Http::timeout($endpoint->timeout)->connectTimeout(min(10, $endpoint->timeout))->withoutRedirecting()
                ->withOptions(['curl' => [CURLOPT_RESOLVE => [$pinned]], 'http_errors' => false])
                ->withHeaders(self::headers($call, $endpoint, $body))
                ->withBody($body, 'application/json')->send($endpoint->method, $endpoint->url);
        } catch (ConnectionException $lost) {
            $number = preg_match('/cURL error (\d+)/', $lost->getMessage(), $found) === 1 ? (int) $found[1] : 0;
            $hasLeft = ! in_array($number, self::NEVER_LEFT, true);
            $why = $number === 28 ? "It did not answer within {$endpoint->timeout} seconds."
                : ($hasLeft ? 'The connection was lost before it answered.' : 'It cannot be reached.');

            return new Answered(null, '', $why, true, $hasLeft);
        }
        $said = mb_strcut($answer->body(), 0, self::LONGEST_ANSWER);
        if ($answer->successful()) {
            $isJson = $said === '' || json_decode($said) !== null || trim($said) === 'null';

            return new Answered($answer->status(), $said, $isJson ? '' : 'It answered something other than JSON.', false);
        }
        $again = $answer->serverError() || in_array($answer->status(), [408, 425, 429], true);
        $wait = is_numeric($answer->header('Retry-After')) ? min(self::LONGEST_WAIT, max(0, (int) $answer->header('Retry-After'))) : null;

        return new Answered($answer->status(), $said, self::refusal($answer->status(), $said), $again, wait: $wait);
    }

    /** @return array<string, string> */
    private static function headers(StoredCall $call, Endpoint $endpoint, string $body): array
    {
        $headers = ($endpoint->secret_headers ?? []) + $endpoint->headers + [
            'Idempotency-Key' => $call->key, 'User-Agent' => 'Vivid-Ledger', 'Accept' => 'application/json',
        ];
        if ($endpoint->signing_secret !== null) {
            $id = "msg_{$call->key}";
            $now = time();
            $headers += [
                'webhook-id' => $id, 'webhook-timestamp' => (string) $now,
                'webhook-signature' => (new Webhook($endpoint->signing_secret))->sign($id, $now, $body),
            ];
        }

        return $headers;
    }

    private static function refusal(int $status, string $body): string
    {
        $json = json_decode($body, true);
        $said = is_array($json) ? ($json['message'] ?? $json['error'] ?? $json['title'] ?? $json['detail'] ?? '') : '';

        return "It answered {$status}".(is_string($said) && $said !== '' ? ': '.mb_substr($said, 0, 300) : '.');
    }
}
