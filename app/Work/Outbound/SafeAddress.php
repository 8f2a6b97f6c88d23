<?php

declare(strict_types=1);

namespace App\Work\Outbound;

use Symfony\Component\HttpFoundation\IpUtils;

/**
 * Where an address really leads: its host is looked up, and what lies inside the network is left alone, unless an administrator has
 * allowed it. The call then goes to the very address that was checked, so that a name that changes in between leads nowhere else.
 */
final class SafeAddress
{
    /** What is no public address of one host: this network, private, shared, for tests, documents, many at once (RFC 6890). */
    private const SPECIAL_FOUR = [
        '0.0.0.0/8', '10.0.0.0/8', '100.64.0.0/10', '127.0.0.0/8', '169.254.0.0/16', '172.16.0.0/12', '192.0.0.0/24', '192.0.2.0/24',
        '192.88.99.0/24', '192.168.0.0/16', '198.18.0.0/15', '198.51.100.0/24', '203.0.113.0/24', '224.0.0.0/4', '240.0.0.0/4',
    ];

    /** Of IPv6 only these are given out to hosts anywhere (RFC 4291); all else is local, or wraps another address. */
    private const GLOBAL = '2000::/3';

    /** Tunnels, which lead where they want to, and documents. */
    private const SPECIAL_SIX = ['2001::/23', '2001:db8::/32', '2002::/16', '3fff::/20'];

    /**
     * @param  bool  $mayBeInside  whether loopback, private and link-local addresses are allowed
     * @return string the host, the port and the checked address, as curl takes them: "host:443:192.0.2.7"
     *
     * @throws \DomainException when it is no address of the web, leads nowhere, or inside
     */
    public static function of(string $url, bool $mayBeInside): string
    {
        $parts = parse_url($url);
        $scheme = strtolower((string) ($parts['scheme'] ?? ''));
        $host = trim((string) ($parts['host'] ?? ''), '[]');
        if (! is_array($parts) || ! in_array($scheme, ['http', 'https'], true) || $host === '' || isset($parts['user'])) {
            throw new \DomainException('Give an address that begins with https:// or http://, without a name or password in it.');
        }
        $addresses = self::lookedUp($host);
        if ($addresses === []) {
            throw new \DomainException("There is no host called {$host}.");
        }
        foreach ($mayBeInside ? [] : $addresses as $address) {
            if (self::isInside($address)) {
                throw new \DomainException("{$host} lies inside the network ({$address}). An administrator can allow that in Setup.");
            }
        }
        $port = $parts['port'] ?? ($scheme === 'https' ? 443 : 80);
        $address = str_contains($addresses[0], ':') ? "[{$addresses[0]}]" : $addresses[0];

        return "{$host}:{$port}:{$address}";
    }

    public static function isInside(string $address): bool
    {
        $packed = inet_pton($address);
        // An IPv4 address in the clothes of an IPv6 one is judged as what it is.
        if (is_string($packed) && strlen($packed) === 16 && str_starts_with($packed, str_repeat("\0", 10)."\xff\xff")) {
            $address = (string) inet_ntop(substr($packed, 12));
        }

        return str_contains($address, ':') ? ! IpUtils::checkIp($address, self::GLOBAL) || IpUtils::checkIp($address, self::SPECIAL_SIX)
            : IpUtils::checkIp($address, self::SPECIAL_FOUR);
    }

    /** @return list<string> */
    private static function lookedUp(string $host): array
    {
        if (filter_var($host, FILTER_VALIDATE_IP) !== false) {
            return [$host];
        }
        $four = gethostbynamel($host) ?: [];
        $six = array_column(@dns_get_record($host, DNS_AAAA) ?: [], 'ipv6');

        return array_values(array_filter([...$four, ...$six], is_string(...)));
    }
}
