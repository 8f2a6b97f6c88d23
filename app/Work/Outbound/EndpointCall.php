<?php

declare(strict_types=1);

namespace App\Work\Outbound;

use App\Models\Outbound\Endpoint;
use App\Models\Outbound\StoredCall;
use GuzzleHttp\Client;
use GuzzleHttp\Exception\TransferException;
use GuzzleHttp\Handler\CurlMultiHandler;
use GuzzleHttp\HandlerStack;
use GuzzleHttp\Promise\Create;
use GuzzleHttp\Promise\PromiseInterface;
use GuzzleHttp\Promise\Utils;
use Psr\Http\Message\ResponseInterface;
use StandardWebhooks\Webhook;

/**
 * HTTP requests to endpoints, signed as Standard Webhooks says, each to an address that was checked; redirects are not followed. They go
 * on side by side: while one waits for its answer, the next leaves.
 */
final class EndpointCall
{
    /** Bytes that are kept of an answer. */
    private const LONGEST_ANSWER = 1_000_000;

    private const LONGEST_WAIT = 3600;

    /** Nothing has left the house when one of these comes: no name, no way, no connection, no handshake. */
    private const NEVER_LEFT = [6, 7, 35, 60];

    /** One for all of them, so that they go on side by side. */
    private readonly CurlMultiHandler $handler;

    private readonly Client $client;

    public function __construct()
    {
        $this->handler = new CurlMultiHandler;
        $this->client = new Client(['handler' => HandlerStack::create($this->handler)]);
    }

    /** Waits until something happens to those that are under way, for a second at most. */
    public function goOn(): void
    {
        $this->handler->tick();
        Utils::queue()->run();
    }

    /** @return PromiseInterface what came of it, as Answered; never rejected for anything that happens out there */
    public function start(StoredCall $call, Endpoint $endpoint): PromiseInterface
    {
        try {
            $pinned = SafeAddress::of($endpoint->url, $endpoint->may_be_inside);
        } catch (\DomainException $unsafe) {
            $mayComeBack = str_starts_with($unsafe->getMessage(), 'There is no host');

            return Create::promiseFor(new Answered(null, '', $unsafe->getMessage(), $mayComeBack));
        }
        $body = $call->payload === [] ? '{}' : json_encode($call->payload, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);

        return $this->client->requestAsync($endpoint->method, $endpoint->url, [
            'timeout' => $endpoint->timeout, 'connect_timeout' => min(10, $endpoint->timeout), 'allow_redirects' => false,
            'http_errors' => false, 'headers' => self::headers($call, $endpoint, $body), 'body' => $body,
            'sink' => new FirstBytes(self::LONGEST_ANSWER), 'curl' => [CURLOPT_RESOLVE => [$pinned]],
        ])->then(self::answered(...), static fn (\Throwable $lost): Answered => self::lost($lost, $endpoint->timeout));
    }

    private static function lost(\Throwable $lost, int $seconds): Answered
    {
        if (! $lost instanceof TransferException) {
            throw $lost;
        }
        $number = preg_match('/cURL error (\d+)/', $lost->getMessage(), $found) === 1 ? (int) $found[1] : 0;
        $hasLeft = ! in_array($number, self::NEVER_LEFT, true);
        $why = $number === 28 ? "It did not answer within {$seconds} seconds."
            : ($hasLeft ? 'The connection was lost before it answered.' : 'It cannot be reached.');

        return new Answered(null, '', $why, true, $hasLeft);
    }

    private static function answered(ResponseInterface $answer): Answered
    {
        $bytes = (string) $answer->getBody();
        // What is kept is text; what is no UTF-8 stands there as far as it can.
        $said = str_replace("\0", '', mb_scrub($bytes));
        $status = $answer->getStatusCode();
        if ($status >= 200 && $status < 300) {
            $isJson = $bytes === '' || json_decode($bytes) !== null || trim($bytes) === 'null';

            return new Answered($status, $said, $isJson ? '' : 'It answered something other than JSON.', false);
        }
        $again = $status >= 500 || in_array($status, [408, 425, 429], true);

        return new Answered($status, $said, self::refusal($status, $said), $again, wait: self::wait($answer->getHeaderLine('Retry-After')));
    }

    /** @return ?int seconds, given as such or as the date until when (RFC 9110 §10.2.3) */
    private static function wait(string $retryAfter): ?int
    {
        $until = ctype_digit($retryAfter) ? time() + (int) $retryAfter
            : \DateTimeImmutable::createFromFormat(\DateTimeInterface::RFC7231, $retryAfter);
        $until = $until instanceof \DateTimeImmutable ? $until->getTimestamp() : $until;

        return $until === false ? null : min(self::LONGEST_WAIT, max(0, $until - time()));
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
