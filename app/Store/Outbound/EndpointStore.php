<?php

declare(strict_types=1);

namespace App\Store\Outbound;

use App\Models\Outbound\CallStatus;
use App\Models\Outbound\Endpoint;
use App\Models\Outbound\StoredCall;
use App\Store\DomainError;
use App\Store\Library\KeptStore;
use App\Store\RefusedFor;
use Illuminate\Database\Connection;
use VividLedger\Rule\Call\EndpointSlot;
use VividLedger\Words\Words;

/** Endpoints of other systems, kept in Setup and called by rules under their names. What is secret goes in and never comes out. */
final readonly class EndpointStore
{
    public const METHODS = ['POST', 'PUT', 'PATCH', 'DELETE', 'GET'];

    private const NAME_LENGTH = 60;

    /** Names that the call itself sets. */
    private const OWN_HEADERS = '/^(content-|host$|idempotency-key$|webhook-|user-agent$|connection$|transfer-encoding$)/i';

    public function __construct(private Connection $db, private KeptStore $kept)
    {
    }

    /**
     * @param  array{
     *     name: string, url: string, method: string, headers: array<string, string>, timeout: int, tries: int, atOnce: int,
     *     perMinute: int, mayBeInside: bool, secretHeaders: ?array<string, string>, signingSecret: ?string,
     * }  $given  secrets that are null stay as they are
     *
     * @throws DomainError
     */
    public function keep(?int $id, ?int $version, array $given): Endpoint
    {
        $name = trim($given['name']);
        $this->check($name, $given);

        return $this->db->transaction(function () use ($id, $version, $name, $given): Endpoint {
            $taken = Endpoint::query()->where('name', $name)->lockForUpdate()->value('id');
            if ($taken !== null && $taken !== $id) {
                throw DomainError::at('/name', Words::say('There is one of that name already.'), RefusedFor::Conflict);
            }
            $before = $id === null ? new Endpoint : Endpoint::query()->lockForUpdate()->find($id);
            if ($before === null) {
                throw DomainError::missing(Words::say('There is no such endpoint.'));
            }
            if ($id !== null && $version !== null && $before->version !== $version) {
                throw new DomainError(
                    'stale_version',
                    Words::say('Somebody changed it after you opened it. Open it again.'),
                    RefusedFor::Conflict,
                );
            }
            if ($id !== null && $before->name !== $name && $this->kept->usersOf(EndpointSlot::KEY, $before->name) !== []) {
                throw DomainError::at(
                    '/name',
                    Words::say('‘{before}’ keeps its name while rules call it.', before: $before->name),
                    RefusedFor::Conflict,
                );
            }
            $before->fill([
                'name' => $name, 'url' => trim($given['url']), 'method' => $given['method'], 'headers' => $given['headers'],
                'timeout' => $given['timeout'], 'most_tries' => $given['tries'], 'at_once' => $given['atOnce'],
                'per_minute' => $given['perMinute'], 'may_be_inside' => $given['mayBeInside'],
                'version' => $id === null ? 1 : $before->version + 1, 'failures' => 0, 'rests_until' => null,
            ]);
            if ($given['secretHeaders'] !== null) {
                $before->secret_headers = $given['secretHeaders'] === [] ? null : $given['secretHeaders'];
            }
            if ($given['signingSecret'] !== null) {
                $before->signing_secret = $given['signingSecret'] === '' ? null : $given['signingSecret'];
            }
            $before->save();

            return $before;
        });
    }

    /** @throws DomainError while rules call it, or calls wait for it */
    public function drop(int $id): void
    {
        $endpoint = Endpoint::query()->find($id) ?? throw DomainError::missing(Words::say('There is no such endpoint.'));
        $users = $this->kept->usersOf(EndpointSlot::KEY, $endpoint->name);
        if ($users !== []) {
            throw new DomainError(
                'in_use',
                Words::say('‘{endpoint}’ is called by rules: {users}.', endpoint: $endpoint->name, users: implode(', ', $users)),
                RefusedFor::Conflict,
            );
        }
        if (StoredCall::query()->where('endpoint', $endpoint->name)->where('status', CallStatus::Waiting)->exists()) {
            throw new DomainError(
                'in_use',
                Words::say('Calls to ‘{endpoint}’ are on their way.', endpoint: $endpoint->name),
                RefusedFor::Conflict,
            );
        }
        $endpoint->delete();
    }

    /**
     * @param  array{
     *     url: string, method: string, headers: array<string, string>, secretHeaders: ?array<string, string>, signingSecret: ?string,
     * }  $given
     */
    private function check(string $name, array $given): void
    {
        if ($name === '' || mb_strlen($name) > self::NAME_LENGTH) {
            throw DomainError::at(
                '/name',
                $name === ''
                    ? Words::say('Give it a name.')
                    : Words::say('A name has at most {most} characters.', most: self::NAME_LENGTH),
            );
        }
        $parts = parse_url(trim($given['url']));
        $isWeb = is_array($parts) && in_array($parts['scheme'] ?? '', ['http', 'https'], true) && ($parts['host'] ?? '') !== '';
        if (! $isWeb || isset($parts['user'])) {
            throw DomainError::at(
                '/url',
                Words::say('Give an address that begins with https:// or http://, without a name or password in it.'),
            );
        }
        foreach ($given['headers'] + ($given['secretHeaders'] ?? []) as $header => $value) {
            if (preg_match('/^[A-Za-z0-9!#$%&\'*+.^_`|~-]{1,100}$/D', (string) $header) !== 1 || preg_match('/[\r\n\0]/', $value) === 1
                || preg_match(self::OWN_HEADERS, (string) $header) === 1) {
                throw DomainError::at('/headers', Words::say('‘{header}’ is no header that can be set here.', header: $header));
            }
        }
        $secret = $given['signingSecret'] ?? '';
        if ($secret !== '' && (strlen($secret) < 24 || base64_decode((string) preg_replace('/^whsec_/', '', $secret), true) === false)) {
            throw DomainError::at(
                '/signingSecret',
                Words::say('A signing secret is base64, at least 24 characters, and may begin with whsec_.'),
            );
        }
    }
}
