<?php

declare(strict_types=1);

namespace App\Http\Types;

use Illuminate\Foundation\Http\FormRequest;

final class FieldInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        $new = $this->isMethod('POST');

        return [
            'label' => [$new ? 'required' : 'sometimes', 'string', 'max:200'],
            'type' => [$new ? 'required' : 'prohibited', 'string', 'max:20'],
            'version' => [$new ? 'prohibited' : 'required', 'integer'], 'target' => 'nullable|string|max:64',
            'currency' => 'nullable|string|max:3', 'scale' => 'nullable|integer', 'required' => 'sometimes|boolean',
            'help' => 'sometimes|nullable|string|max:1000',
            'min' => 'sometimes|nullable|string|max:30', 'max' => 'sometimes|nullable|string|max:30',
            'choices' => 'sometimes|array|list|max:300', 'choices.*' => 'array', 'section' => 'sometimes|nullable|string|max:200',
            'default' => 'sometimes|nullable', 'unique' => 'sometimes|boolean', 'requiredAt' => 'sometimes|array|list|max:200',
            'requiredAt.*' => 'string|max:64', 'onDelete' => 'sometimes|string|max:10',
            'numbering' => [$new ? 'nullable' : 'prohibited', 'string', 'max:60'],
            'formula' => 'sometimes|nullable|string|max:2000',
        ];
    }
}
