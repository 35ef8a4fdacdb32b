<template>
  <!-- The mark: a straight enamel cup with paper slips standing out of it. -->
  <svg width="30" height="32" viewBox="0 0 30 32" aria-hidden="true">
    <path d="M9 12 7.500 4.500l4.500-1 1.500 8z" fill="#F6F2E9" stroke="#1F4E48" />
    <path d="M13 12V1.500h5V12z" fill="#FFFDF8" stroke="#1F4E48" />
    <path d="M4 12h18l-1 15.500q-.2 3-3.200 3H8.200q-3 0-3.200-3z" fill="#FFFDF8" />
    <path d="M3 12h20" stroke="#A8562A" stroke-width="2.500" stroke-linecap="round" />
    <path
      d="M22.500 16h1.500q3.500 0 3.500 3.500 0 5.500-6 6"
      fill="none"
      stroke="#FFFDF8"
      stroke-width="2"
    />
  </svg>
</template>
