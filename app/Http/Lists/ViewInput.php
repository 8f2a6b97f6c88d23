<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Models\Shared;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

final class ViewInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            ...($this->isMethod('PUT') ? ['version' => 'required|integer'] : []), 'name' => 'required|string|max:60',
            'shared' => ['required', Rule::enum(Shared::class)],
            'definition' => 'present|array', 'definition.columns' => 'array|list|max:30', 'definition.columns.*' => 'string|max:130',
            'definition.sort' => 'array|list|max:4', 'definition.sort.*' => 'string|max:130', 'definition.sums' => 'array|list|max:4',
            'definition.sums.*' => 'string|max:130', 'definition.group' => 'nullable|string|max:130',
            'definition.layout' => 'nullable|string|max:10', 'definition.filter' => 'nullable|array',
            'definition.search' => 'nullable|string|max:200',
        ];
    }
}
