<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Http\Describe\SaysObjects;
use App\Models\Access\StoredRole;
use OpenApi\Attributes as OA;
use VividLedger\Rights\Role;
use VividLedger\Rights\RoleFile;

/** A role, and what everybody who has it may do. */
#[OA\Schema]
final readonly class RoleResource implements \JsonSerializable
{
    use SaysObjects;

    /**
     * @param  list<string>  $duties
     * @param  array<string, array<array-key, string>|\stdClass>  $reaches
     * @param  array<string, array<array-key, string>|\stdClass>  $fields
     */
    public function __construct(
        #[OA\Property(description: 'By which it is known, and which stays.')]
        public string $name,
        #[OA\Property]
        public string $label,
        #[OA\Property]
        public int $version,
        #[OA\Property(description: 'How many people at the company have it.')]
        public int $people,
        #[OA\Property(description: 'Whether it may everything, always, and cannot be changed.')]
        public bool $isFixed,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $duties,
        #[OA\Property(
            type: 'object',
            description: 'Whose records each act extends to, by record type; under "*" for all types that are not named.',
            additionalProperties: new OA\AdditionalProperties(type: 'object'),
        )]
        public array $reaches,
        #[OA\Property(
            type: 'object',
            description: 'Fields that are not simply seen and changed, by record type.',
            additionalProperties: new OA\AdditionalProperties(type: 'object'),
        )]
        public array $fields,
    ) {
    }

    public static function of(StoredRole $stored, int $people): self
    {
        $file = RoleFile::write($stored->role());
        // A type whose every right is none is named all the same.
        $objects = static fn (array $of): array => array_map(static fn (array $one): array|\stdClass => $one ?: new \stdClass, $of);

        return new self(
            name: $stored->name, label: $file['label'], version: $stored->version, people: $people,
            isFixed: $stored->name === Role::ADMINISTRATOR, duties: $file['duties'], reaches: $objects($file['reaches']),
            fields: $objects($file['fields']),
        );
    }
}
