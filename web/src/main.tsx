document.body.textContent = "x"
