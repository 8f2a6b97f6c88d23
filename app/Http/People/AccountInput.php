<?php

declare(strict_types=1);

namespace App\Http\People;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;

final class AccountInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['before' => 'nullable|integer'];
    }

    public function meant(): array
    {
        return [
            'before' => 'Only entries with a lower number.',
        ];
    }
}
