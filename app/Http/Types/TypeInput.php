<?php

declare(strict_types=1);

namespace App\Http\Types;

use Illuminate\Foundation\Http\FormRequest;

final class TypeInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        $new = $this->isMethod('POST');

        return [
            'label' => [$new ? 'required' : 'sometimes', 'string', 'max:200'],
            'plural' => [$new ? 'required' : 'sometimes', 'string', 'max:200'],
            'version' => [$new ? 'prohibited' : 'required', 'integer'],
            ...($new ? [] : [
                'fields' => 'sometimes|array|list|max:300', 'fields.*' => 'string|max:64',
                'columns' => 'sometimes|array|list|max:300', 'columns.*' => 'string|max:64',
            ]),
        ];
    }
}
