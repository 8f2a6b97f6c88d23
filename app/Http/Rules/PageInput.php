<?php

declare(strict_types=1);

namespace App\Http\Rules;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;

final class PageInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['page' => 'nullable|integer'];
    }

    public function meant(): array
    {
        return [
            'page' => 'A published page; left out, what is being written.',
        ];
    }
}
