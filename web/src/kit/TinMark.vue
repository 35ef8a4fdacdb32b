<template>
  <!-- The mark: a straight enamel cup with paper slips standing out of it. -->
  <svg width="30" height="32" viewBox="0 0 30 32" aria-hidden="true">
    <path d="M9 12 7.500 4.500l4.500-1 1.500 8z" fill="#F6F2E9" stroke="#1F4E48" />
    <path d="M13 12V1.500h5V12z" fill="#FFFDF8" stroke="#1F4E48" />
    <path d="M4 12h18v14.500q0 4-4 4H8q-4 0-4-4z" fill="#FFFDF8" />
    <path d="M3 12h20" stroke="#A8562A" stroke-width="2.500" stroke-linecap="round" />
    <path
      d="M22 16h2q3.500 0 3.500 3.500v2q0 3.500-3.500 3.500h-2"
      fill="none"
      stroke="#FFFDF8"
      stroke-width="2"
    />
  </svg>
</template>
