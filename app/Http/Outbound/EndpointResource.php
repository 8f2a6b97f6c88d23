<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use App\Store\Outbound\EndpointStore;
use OpenApi\Attributes as OA;

/** An endpoint of another system. What is secret is never shown again. */
#[OA\Schema]
final readonly class EndpointResource
{
    /**
     * @param  list<HeaderResource>  $headers
     * @param  list<string>  $secretHeaders
     * @param  list<string>  $rules
     */
    public function __construct(
        #[OA\Property]
        public int $id,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public int $version,
        #[OA\Property]
        public string $url,
        #[OA\Property(enum: EndpointStore::METHODS)]
        public string $method,
        #[OA\Property(items: new OA\Items(ref: HeaderResource::class))]
        public array $headers,
        #[OA\Property(description: 'Names of the headers whose values are secret.', items: new OA\Items(type: 'string'))]
        public array $secretHeaders,
        #[OA\Property]
        public bool $isSigned,
        #[OA\Property(description: 'In seconds.')]
        public int $timeout,
        #[OA\Property]
        public int $tries,
        #[OA\Property]
        public int $atOnce,
        #[OA\Property]
        public int $perMinute,
        #[OA\Property(description: 'Whether its host may lie inside the network.')]
        public bool $mayBeInside,
        #[OA\Property(description: 'After many failures in a row nothing is sent until then.')]
        public ?string $restsUntil,
        #[OA\Property(description: 'How many calls wait for it.')]
        public int $waiting,
        #[OA\Property(description: 'How many calls to it were given up.')]
        public int $failed,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $rules,
    ) {
    }
}
