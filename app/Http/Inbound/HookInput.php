<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use Illuminate\Foundation\Http\FormRequest;

final class HookInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            ...($this->isMethod('PUT') ? ['version' => 'required|integer'] : []), 'name' => 'present|nullable|string',
            'recordType' => 'present|nullable|string|max:40',
            'takes' => 'present|array|list|max:60', 'takes.*.path' => 'present|nullable|string|max:200',
            'takes.*.field' => 'present|nullable|string|max:60', 'starts' => 'sometimes|array|list|max:60',
            'starts.*.field' => 'present|nullable|string|max:60',
            'starts.*.value' => 'present|nullable|string|max:2000',
            'knownBy' => 'sometimes|nullable|string|max:60',
            'mayCreate' => 'required|boolean', 'isOpen' => 'required|boolean', 'freshSecret' => 'sometimes|boolean',
        ];
    }

    /**
     * @return array{
     *     name: string, recordType: string, takes: list<array{path: string, field: string}>,
     *     starts: list<array{field: string, value: string}>, knownBy: ?string, mayCreate: bool, isOpen: bool, freshSecret: bool,
     * }
     */
    public function given(): array
    {
        $given = $this->validated();

        return [
            'name' => (string) $given['name'], 'recordType' => (string) $given['recordType'], 'takes' => array_values(array_map(
                static fn (array $one): array => ['path' => trim((string) $one['path']), 'field' => (string) $one['field']],
                $given['takes'],
            )), 'starts' => array_values(array_map(
                static fn (array $one): array => ['field' => (string) $one['field'], 'value' => (string) $one['value']],
                $given['starts'] ?? [],
            )), 'knownBy' => ($given['knownBy'] ?? '') === '' ? null : (string) $given['knownBy'],
            'mayCreate' => (bool) $given['mayCreate'],
            'isOpen' => (bool) $given['isOpen'], 'freshSecret' => (bool) ($given['freshSecret'] ?? false),
        ];
    }
}
