<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Slips\SaidResource;
use App\Http\Writing\OfferResource;
use App\Models\Access\StoredRole;
use App\Models\People\Person;
use App\Store\Access\RoleRepository;
use App\Store\Types\SchemaStore;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Rights\Act;
use VividLedger\Rights\Duty;
use VividLedger\Rights\FieldAccess;
use VividLedger\Rights\Reach;
use VividLedger\Rights\RoleDifference;

/** Roles: what everybody who has one may do. */
final class RoleController extends Controller
{
    public function __construct(private readonly RoleRepository $keeper)
    {
    }

    #[OA\Get(path: '/api/roles', operationId: 'roles', description: 'All roles, and what a role can be made of.', tags: ['company'],
        responses: [new Ok(RolesResource::class)])]
    public function index(): RolesResource
    {
        $offers = static fn (array $cases): array => array_values(array_map(
            static fn (Act|Reach|Duty|FieldAccess $case): OfferResource => new OfferResource($case->value, $case->label()),
            $cases,
        ));

        return new RolesResource(
            $this->listed(),
            $offers(Act::cases()),
            $offers(Reach::cases()),
            $offers(Duty::cases()),
            $offers(FieldAccess::cases()),
        );
    }

    #[OA\Post(path: '/api/roles', operationId: 'addRole', description: 'Makes a role: {"label", "duties", "reaches", "fields"}.',
        tags: ['company'], responses: [new Ok(RoleResource::class, status: 201)])]
    public function store(RoleInput $request): JsonResponse
    {
        $stored = $this->keeper->add($request->document(), $this->person($request)->id);

        return new JsonResponse(RoleResource::of($stored, 0), 201);
    }

    #[OA\Post(path: '/api/roles/{role}/difference', operationId: 'roleDifference', description: 'What another wording of a role would '
        .'change, in sentences. Nothing changes.', tags: ['company'],
        responses: [new Ok(SaidResource::class)])]
    public function difference(string $role, RoleInput $request, SchemaStore $schemas): SaidResource
    {
        $stored = StoredRole::query()->find($role);
        $said = (new RoleDifference($schemas->schema()))->said($stored?->role(), $this->keeper->read($role, $request->document()));

        return new SaidResource($said);
    }

    #[OA\Put(path: '/api/roles/{role}', operationId: 'changeRole', description: 'Changes a role. Whoever has it may what it says from '
        .'their next request on.', tags: ['company'],
        responses: [new Ok(RoleResource::class)])]
    public function update(string $role, RoleInput $request): RoleResource
    {
        $version = (int) $request->validated()['version'];

        return $this->listed($this->keeper->change($role, $version, $request->document(), $this->person($request)->id)->name)[0];
    }

    #[OA\Delete(path: '/api/roles/{role}', operationId: 'removeRole', description: 'Removes a role that nobody has.', tags: ['company'],
        responses: [new Ok])]
    public function destroy(string $role, Request $request): Response
    {
        $this->keeper->remove($role, $this->person($request)->id);

        return response()->noContent();
    }

    /** @return list<RoleResource> */
    private function listed(?string $only = null): array
    {
        $people = Person::query()->where('active', true)->groupBy('role')->selectRaw('role, COUNT(*) AS n')->toBase()->pluck('n', 'role');
        $roles = StoredRole::query()->orderBy('position')->orderBy('name')->get();

        return array_values($roles->filter(static fn (StoredRole $role): bool => $only === null || $role->name === $only)
            ->map(static fn (StoredRole $role): RoleResource => RoleResource::of($role, (int) ($people[$role->name] ?? 0)))->all());
    }
}
