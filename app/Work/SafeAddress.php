<?php

declare(strict_types=1);

namespace App\Work;

/**
 * Where an address really leads: its host is looked up, and what lies inside the network is left alone, unless an administrator has
 * allowed it. The call then goes to the very address that was checked, so that a name that changes in between leads nowhere else.
 */
final class SafeAddress
{
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
        $isPublic = filter_var($address, FILTER_VALIDATE_IP, FILTER_FLAG_NO_PRIV_RANGE | FILTER_FLAG_NO_RES_RANGE) !== false;

        // Shared address space of providers (RFC 6598), and what NAT64 and 6to4 wrap, PHP counts as public.
        return ! $isPublic || preg_match('/^100\.(6[4-9]|[7-9]\d|1[01]\d|12[0-7])\.|^64:ff9b:|^2002:/i', $address) === 1;
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
